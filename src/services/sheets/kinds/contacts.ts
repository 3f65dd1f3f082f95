import { choiceColumn, codeColumn, type RowFault, textColumn } from '@/core/sheets';
import { readContactRecords, upsertContacts } from '@/data/repositories/sheets/terms';
import { supplierId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { supplierColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  supplierColumn(),
  textColumn('name', 120, {
    title: 'Name',
    explain: 'Of the person or the office.',
    example: 'Export office',
    required: true,
  }),
  choiceColumn(
    'kind',
    { order_address: 'order address', contact: 'contact' },
    {
      title: 'Kind',
      explain: 'order address (orders may go there) or contact.',
      example: 'contact',
      otherwise: 'contact',
    },
  ),
  textColumn('address', 400, { title: 'Address', explain: 'Of an order address.', example: '' }),
  codeColumn('email', 'mail', { title: 'Mail', explain: '', example: 'export@hollinmere.example' }),
  textColumn('phone', 40, { title: 'Phone', explain: '', example: '' }),
  textColumn('note', 200, { title: 'Note', explain: 'What they are for.', example: '' }),
];

/** Further order addresses and people of suppliers. */
export const contacts: SheetKind = {
  name: 'contacts',
  title: 'Order addresses and contacts',
  about: 'Of suppliers, besides the one that stands with them.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { supplier: { what: 'supplier' } },
  keyOf: keyed('supplier', 'name'),
  ...foundBy(readContactRecords, columns, 'supplier', 'name'),
  check: ({ values, whole }): RowFault[] =>
    whole.kind === 'order_address' && text(whole, 'address') === '' && text(whole, 'email') === ''
      ? [faultAt('address', values, { kind: 'missing' })]
      : [],
  write: (tx, rows, refs) =>
    upsertContacts(
      tx,
      rows.map(({ values: v }) => [
        ...[
          supplierId(refs, v),
          v.name,
          v.kind,
          text(v, 'address'),
          text(v, 'email'),
          text(v, 'phone'),
          text(v, 'note'),
        ],
      ]) as never,
    ),
  remove: removeByIds('supplier_contact'),
  replan: false,
};
