import { type Actor, may } from '@/core/people';
import {
  type NumberPattern,
  numberOf,
  numberSeries,
  type OrderPaper,
  type PaperSetup,
  parseNumberPattern,
} from '@/core/purchase';
import { units } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import {
  readLastNumber,
  readNumbering,
  readPaperSetup,
  setNextNumber,
  updateNumbering,
  updatePaperSetup,
} from '@/data/repositories/papers';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';

/** How orders are numbered and what their paper looks like, as typed. */
export type TypedPapers = {
  readonly pattern: string;
  /** The next number of this month or year, and the first of each after it. */
  readonly next: string;
  readonly start: string;
  readonly setup: PaperSetup;
};
export type PapersView = {
  readonly typed: TypedPapers;
  readonly may: boolean;
  readonly today: string;
  /** A made-up order for the preview. */
  readonly sample: OrderPaper;
};

async function typedNow(tx: Tx, today: string): Promise<TypedPapers> {
  const { pattern, start } = await readNumbering(tx);
  const last = await readLastNumber(tx, numberSeries(pattern, today));
  return {
    ...{ pattern, start: String(start), next: String(last === 0 ? start : last + 1) },
    setup: await readPaperSetup(tx),
  };
}

/** How papers and numbers are set up, with a made-up order to see them on. Errors: forbidden. */
export async function readPapers(deps: Deps, actor: Actor): Promise<Result<PapersView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const typed = await typedNow(tx, today);
    const number = numberOf(typed.pattern as NumberPattern, today, Number(typed.next));
    const sample = sampleOf(company, number, today, typed.setup);
    return ok({ typed, may: may(actor, 'setup.edit').ok, today, sample });
  });
}

/** Sets them. `was` is what the person saw. The next number can't be one that was drawn already.
 *  Errors: forbidden, changed_meanwhile, invalid_field pattern, start or next. */
export async function setPapers(
  deps: Deps,
  actor: Actor,
  request: Request<TypedPapers & { readonly was: TypedPapers }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'setup.edit');
  if (!allowed.ok) return allowed;
  const { was, ...typed } = request.input;
  const pattern = parseNumberPattern(typed.pattern);
  if (!pattern.ok) return err(invalidField('pattern', pattern.error));
  const numberOfText = (text: string) => (/^[1-9]\d{0,7}$/.test(text.trim()) ? Number(text) : null);
  const [start, next] = [numberOfText(typed.start), numberOfText(typed.next)];
  if (start === null) return err(invalidField('start', { kind: 'not_a_number_of', text: typed.start }));
  if (next === null) return err(invalidField('next', { kind: 'not_a_number_of', text: typed.next }));
  return command(deps, actor, 'set-papers', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const before = await typedNow(tx, today);
    if (JSON.stringify(before) !== JSON.stringify(was))
      return err({ kind: 'changed_meanwhile', what: 'record', who: null, now: null });
    const series = numberSeries(pattern.value, today);
    const last = await readLastNumber(tx, series);
    if (last > 0 && next <= last && typed.next !== before.next)
      return err(invalidField('next', { kind: 'number_taken', text: numberOf(pattern.value, today, next) }));
    await updateNumbering(tx, { pattern: pattern.value, start });
    if (typed.next !== before.next) await setNextNumber(tx, series, next);
    await updatePaperSetup(tx, typed.setup);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'company', entityId: 1, action: 'papers', before, after: typed },
    ]);
    return ok(null);
  });
}

/** A made-up order. */
const sampleOf = (
  company: { readonly name: string; readonly invoiceAddress: string; readonly currency: string },
  number: string,
  day: string,
  setup: PaperSetup,
): OrderPaper => ({
  ...{ number, amendment: 0, changes: [], orderDate: day, language: '', currency: company.currency, setup },
  buyer: { name: company.name, address: company.invoiceAddress },
  supplier: 'Sample Supplies\nMill Lane 4\n10220 Sampleby',
  deliverTo: [{ name: company.name, address: company.invoiceAddress }],
  ...{ invoiceTo: company.invoiceAddress, payment: '30 days net', delivery: 'DAP', shippingWay: 'parcel' },
  ...{ contact: 'the buyer', approvedBy: 'the owner', text: '' },
  lines: [
    {
      ...{ lineNo: 1, description: 'Wool yarn, moss', edition: '', theirNumber: 'S-4711', ourNumber: '10412-07' },
      ...{ makersNumber: 'FEN07', packName: 'bag', unit: 'ball', price: '32.8', per: '1', freeOfCharge: false },
      parts: [{ packs: units(6), base: units(60), date: day, place: company.name, address: '' }],
      ...{ discount: '5', net: 18_696, note: 'one dye lot, please', references: ['CO2611-0012'] },
    },
  ],
  ...{ net: 18_696, charges: [{ name: 'Freight', minor: 950 }] },
  ...{ taxes: [{ percent: '19', taxable: 19_646, tax: 3_733 }], total: 23_379 },
});
