import { minorToDecimal } from '@/core/money';
import type { Actor } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { day, type FileField, figure, type ListFile, streamedListFile, words } from '../lists/fileColumns';
import { type MovementsAsked, type MovementsView, readMovements } from './readMovements';

type Row = MovementsView['movements'][number] & { readonly currency: string };
const plain = (text: string | null) => (text === null ? null : toDecimal(fromDecimal(text)));

const fields: readonly FileField<Row>[] = [
  day('day', 'Day', (m) => m.businessDate),
  words('item', 'Item', (m) => m.itemNumber),
  words('name', 'Name', (m) => m.itemName),
  words('location', 'Where', (m) => m.location),
  words('kind', 'What', (m) => m.kind),
  words('reason', 'Reason', (m) => m.reason ?? ''),
  words('document', 'Document', (m) => m.documentNumber ?? ''),
  figure('change', 'Change', (m) => plain(m.onHandChange)),
  figure('value', 'Value', (m) => minorToDecimal(m.valueChange, m.currency)),
  figure('variance', 'Variance', (m) => minorToDecimal(m.variance, m.currency)),
  figure('after', 'On hand after', (m) => plain(m.runningQuantity)),
  figure('worth', 'Worth after', (m) => (m.runningValue === null ? null : minorToDecimal(m.runningValue, m.currency))),
  words('who', 'By', (m) => m.who ?? ''),
  words('posted', 'Posted (UTC)', (m) => m.postedAt),
  words('note', 'Note', (m) => m.note ?? ''),
  words('lots', 'Lots', (m) => m.lots ?? ''),
];

/** Movements as the page shows them, all of them, to be written to a file. Errors: forbidden. */
export async function readMovementExport(
  deps: Deps,
  actor: Actor,
  asked: MovementsAsked,
): Promise<Result<ListFile, Failure>> {
  const first = await readMovements(deps, actor, { ...asked, before: 0 });
  if (!first.ok) return first;
  const { currency, today } = first.value;
  async function* rows(): AsyncGenerator<Row> {
    let page = first.ok ? first.value : null;
    while (page) {
      for (const m of page.movements) yield { ...m, currency };
      const last = page.movements.at(-1);
      const next = page.more && last ? await readMovements(deps, actor, { ...asked, before: last.id }) : null;
      page = next?.ok ? next.value : null;
    }
  }
  return ok(streamedListFile('Movements', today, fields, rows()));
}
