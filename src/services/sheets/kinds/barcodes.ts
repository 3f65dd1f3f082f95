import { type Barcode, barcodeText, parseBarcode } from '@/core/codes';
import { choiceColumn, type RowFault, textColumn, type Values } from '@/core/sheets';
import { deleteBarcodes, readBarcodePage, readBarcodeRecords, upsertBarcodes } from '@/data/repositories/sheets/parts';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { itemId, packId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, packColumn } from './common';
import { pageOf } from './pages';

const columns = [
  textColumn('code', 40, {
    title: 'Code',
    explain: 'What the label says; a GTIN’s check digit is verified.',
    example: '4006381333931',
    required: true,
    aliases: ['barcode', 'ean', 'gtin', 'upc'],
  }),
  choiceColumn(
    'kind',
    { gtin: 'GTIN', internal: 'internal' },
    { title: 'Kind', explain: 'GTIN or internal; empty = as many digits as a GTIN has are one.', example: 'GTIN' },
  ),
  itemColumn(),
  packColumn('Pack that carries it; empty = the single piece.'),
];

const parsed = (v: Values) => parseBarcode(text(v, 'code'), (v.kind ?? null) as 'gtin' | 'internal' | null);
const kept = (v: Values): Barcode => {
  const p = parsed(v);
  return p.ok ? p.value : { kind: 'internal', code: text(v, 'code') };
};
const keyOf = (v: Values) => `${kept(v).kind}\u001f${kept(v).code}`;
/** As it is printed. */
const shown = (records: readonly SheetRecord[]): SheetRecord[] =>
  records.map(({ id, values }) => ({
    id,
    values: { ...values, code: barcodeText({ kind: values.kind as Barcode['kind'], code: text(values, 'code') }) },
  }));

/** Codes on labels. */
export const barcodes: SheetKind = {
  name: 'barcodes',
  title: 'Barcodes',
  about: 'Codes on labels, of items and of their packs.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, pack: { what: 'pack' } },
  settle: (v) => (parsed(v).ok ? { ...v, kind: kept(v).kind, code: barcodeText(kept(v)) } : v),
  keyOf,
  find: async (tx, rows, _refs, lock) => {
    const pairs = rows.map((r) => [kept(r).kind, kept(r).code]);
    return shown(await readBarcodeRecords(tx, columns, { pairs }, lock));
  },
  page: async (tx, after, limit) => shown(pageOf(columns, await readBarcodePage(tx, after, limit))),
  check: ({ values, kept: on, whole: all }) => {
    const faults: RowFault[] = [];
    const code = parsed(all);
    if (!code.ok && text(all, 'code') !== '') {
      const { error } = code;
      if (error.kind === 'wrong_check_digit')
        faults.push(faultAt('code', values, { kind: 'check_digit', right: error.right }));
      else if (error.kind === 'code_unprintable') faults.push(faultAt('code', values, { kind: 'unprintable' }));
      else faults.push(faultAt('code', values, { kind: 'no_such_code', what: 'gtin' }));
    }
    // A code never points at two things: it is taken off the one first.
    if (on && text(on.values, 'item') !== text(all, 'item'))
      faults.push(faultAt('code', values, { kind: 'taken', by: text(on.values, 'item') }));
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertBarcodes(
      tx,
      rows.map(({ values: v }) => [kept(v).kind, kept(v).code, itemId(refs, v), packId(refs, v)]),
    ),
  listed: async (tx, column, value) => shown(await readBarcodeRecords(tx, columns, { of: column, is: value }, false)),
  remove: async (tx, records) => {
    await deleteBarcodes(
      tx,
      records.map((r) => [kept(r.values).kind, kept(r.values).code]),
    );
  },
  replan: false,
};
