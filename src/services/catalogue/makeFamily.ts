import { parsePrice } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { RowFault, Values } from '@/core/sheets';
import { readPatternRecords } from '@/data/repositories/sheets/terms';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { sheetKinds } from '../sheets/kinds';
import { checkSaid, writeChecked } from '../sheets/recordSteps';
import { type Setting, type SheetKind, settingFor, text } from '../sheets/sheetKind';

/** A family made in one go: every value of option 1, crossed with every value of option 2 if there is one. Members are
 *  numbered from the stem ("10412-01"); `pattern` names packs that each gets as its own; '' for none. */
export type MakeFamily = {
  readonly family: string;
  readonly stem: string;
  readonly option1: string;
  readonly values1: readonly string[];
  readonly option2: string;
  readonly values2: readonly string[];
  readonly priceGroup: string;
  readonly category: string;
  readonly unit: string;
  readonly unitName: string;
  readonly price: string;
  readonly pattern: string;
};

const MOST = 500;

/** Errors: forbidden, invalid_field price, wrong_rows (the faults a spreadsheet of these items would have; a number that is
 *  taken is one). All members or none. */
export async function makeFamily(
  deps: Deps,
  actor: Actor,
  request: Request<MakeFamily>,
): Promise<Result<{ readonly made: number; readonly first: number }, Failure>> {
  const allowed = may(actor, 'catalogue.edit');
  if (!allowed.ok) return allowed;
  const f = request.input;
  const price = f.price.trim() === '' ? ok('') : parsePrice(f.price);
  if (!price.ok) return err(invalidField('price', price.error));
  const members = membersOf(f);
  const twice = members.find((m, i) => members.findIndex((x) => x.name === m.name) !== i);
  const wrong = (fault: RowFault) => err<Failure>({ kind: 'wrong_rows', faults: [[fault]] });
  if (twice) return wrong({ kind: 'twice_in_file', row: 1, column: 'values1', text: twice.name });
  if (members.length > MOST)
    return wrong({
      kind: 'out_of_range',
      least: '1',
      most: String(MOST),
      column: 'values1',
      text: String(members.length),
    });
  return command(deps, actor, 'make-family', request, async (tx, now) => {
    const setting = await settingFor(deps, tx, actor.userId, now);
    const items = members.map((m) => ({
      ...{ number: m.number, name: m.name, category: f.category, unit: f.unit, unit_name: f.unitName },
      sale_price: price.value,
    }));
    const made = await keepNew(tx, sheetKinds.items, items, setting);
    if (!made.ok) return made;
    const families = members.map((m) => ({
      ...{ family: f.family, option_1: f.option1, option_2: f.option2, price_group: f.priceGroup },
      ...{ item: m.number, value_1: m.value1, value_2: m.value2 },
    }));
    const linked = await keepNew(tx, sheetKinds.families, families, setting);
    if (!linked.ok) return linked;
    if (f.pattern !== '') {
      const columns = sheetKinds['pack-patterns'].columns;
      const packs = await readPatternRecords(tx, columns, { of: 'pattern', is: f.pattern }, false);
      if (packs.length === 0) return err({ kind: 'not_found', what: 'template' });
      // Packs that hold others come after them.
      const inOrder = [...packs].sort(
        (a, b) => Number(text(a.values, 'of_pack') !== '') - Number(text(b.values, 'of_pack') !== ''),
      );
      for (const p of inOrder) {
        const cells = members.map((m) => ({ item: m.number, ...packCells(p.values) }));
        const kept = await keepNew(tx, sheetKinds.packs, cells, setting);
        if (!kept.ok) return kept;
      }
    }
    return ok({ made: members.length, first: made.value[0] as number });
  });
}

const packCells = (v: Values): Record<string, string> =>
  Object.fromEntries(
    ['pack', 'content', 'of_pack', 'unit', 'buying', 'selling', 'sending'].map((c) => [
      c,
      typeof v[c] === 'boolean' ? (v[c] ? 'yes' : 'no') : text(v, c),
    ]),
  );

type Member = { readonly number: string; readonly name: string; readonly value1: string; readonly value2: string };

/** Members in the order of their options, numbered with as many digits as the last one needs, at least two. */
export function membersOf(f: Pick<MakeFamily, 'family' | 'stem' | 'values1' | 'values2'>): Member[] {
  const clean = (values: readonly string[]) => values.map((v) => v.trim()).filter((v) => v !== '');
  const second = clean(f.values2);
  const pairs = clean(f.values1).flatMap((a) => (second.length > 0 ? second : ['']).map((b) => [a, b] as const));
  const digits = Math.max(2, String(pairs.length).length);
  return pairs.map(([value1, value2], i) => ({
    number: `${f.stem}-${String(i + 1).padStart(digits, '0')}`,
    name: [f.family, value1, value2].filter((w) => w !== '').join(', '),
    ...{ value1, value2 },
  }));
}

/** Keeps records that must all be new. Returns their ids. */
async function keepNew(
  tx: Tx,
  kind: SheetKind,
  records: readonly Readonly<Record<string, string>>[],
  setting: Setting,
): Promise<Result<readonly number[], Failure>> {
  const checked = await checkSaid(
    tx,
    kind,
    records.map((cells) => ({ cells, seen: '' })),
    '.',
    setting,
  );
  const key = kind.columns.find((c) => c.required)?.key ?? '';
  const faults = checked.map((c): readonly RowFault[] => {
    if (c.faults.length > 0 || c.seen === '' || kind.name === 'families') return c.faults;
    return [{ kind: 'taken', by: text(c.values, key), column: key, text: text(c.values, key) }];
  });
  if (faults.some((f) => f.length > 0)) return err({ kind: 'wrong_rows', faults });
  const written = await writeChecked(tx, kind, checked, setting);
  return written.ok ? ok(written.value.ids) : written;
}
