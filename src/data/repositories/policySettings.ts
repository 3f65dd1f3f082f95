import { emptySetting, type PolicyLevel, type PolicySetting, type Season } from '@/core/policy';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { Asking } from '../asking';
import type { Tx } from '../sql';
import { askCompanyRules, type CompanyRules } from './companyRules';

const columns = `kind, min_quantity AS min, max_quantity AS max, fixed_quantity AS fixed, cover_days AS coverDays,
  safety_quantity AS safety, window_days AS windowDays, use_stock AS useStock, keep_safety AS keepSafety,
  display_minimum AS displayMin, reserve_quantity AS reserve, trigger_rule AS \`trigger\`, refill_rule AS refill, rounding,
  supply, target_kind AS targetKind, target_thousandths AS targetThousandths`;

type Raw = Omit<
  { [K in keyof PolicySetting]: PolicySetting[K] },
  'min' | 'max' | 'fixed' | 'safety' | 'displayMin' | 'reserve' | 'useStock' | 'keepSafety' | 'seasons' | 'supplyPlace'
> &
  Record<'min' | 'max' | 'fixed' | 'safety' | 'displayMin' | 'reserve', string | null> &
  Record<'useStock' | 'keepSafety', number | null> & { supplyPlace?: number | null };

const micro = (text: string | null): Quantity | null => (text === null ? null : fromDecimal(text));
const yes = (n: number | null): boolean | null => (n === null ? null : n === 1);

const toSetting = (r: Raw, seasons: readonly Season[] = []): PolicySetting => ({
  ...emptySetting,
  kind: r.kind,
  min: micro(r.min),
  max: micro(r.max),
  fixed: micro(r.fixed),
  coverDays: r.coverDays,
  safety: micro(r.safety),
  windowDays: r.windowDays,
  useStock: yes(r.useStock),
  keepSafety: yes(r.keepSafety),
  displayMin: micro(r.displayMin),
  reserve: micro(r.reserve),
  trigger: r.trigger,
  refill: r.refill,
  rounding: r.rounding,
  supply: r.supply,
  supplyPlace: r.supplyPlace ?? null,
  targetKind: r.targetKind,
  targetThousandths: r.targetThousandths,
  seasons,
});

/** What holds for all items: the company's levels per category, nearest first, the company's own last. */
export type WiderLevels = (categoryId: number) => readonly PolicyLevel[];

type DefaultRow = Raw & { categoryId: number | null };
type Parent = { readonly id: number; readonly parentId: number | null };

/** What categories and the company say. */
export const readWiderLevels = (tx: Tx): Promise<WiderLevels> => askWiderLevels(new Asking(tx, 'together'))();

/** The same, asked for beside other things. */
export function askWiderLevels(ask: Asking, rules = askCompanyRules(ask)): () => Promise<WiderLevels> {
  const rows = ask.rows<DefaultRow>(`SELECT category_id AS categoryId, ${columns} FROM policy_default`);
  const categories = ask.rows<Parent>('SELECT id, parent_id AS parentId FROM category');
  return async () => widerOf(await rules(), await rows(), await categories());
}

function widerOf(
  { trigger, refill }: CompanyRules,
  rows: readonly DefaultRow[],
  categories: readonly Parent[],
): WiderLevels {
  const own = new Map(rows.map((r) => [r.categoryId, toSetting(r)]));
  const parents = new Map(categories.map((c) => [c.id, c.parentId]));
  const last: PolicyLevel = {
    origin: 'company',
    setting: { ...(own.get(null) ?? emptySetting), trigger, refill },
  };
  const known = new Map<number, readonly PolicyLevel[]>();
  return (categoryId) => {
    const had = known.get(categoryId);
    if (had) return had;
    const levels: PolicyLevel[] = [];
    // A tree without circles: refused when it is entered; the count only guards the loop.
    for (let at: number | null = categoryId, n = 0; at !== null && n < 50; at = parents.get(at) ?? null, n += 1) {
      const setting = own.get(at);
      if (setting) levels.push({ origin: 'category', setting });
    }
    levels.push(last);
    known.set(categoryId, levels);
    return levels;
  };
}

/** A key of an item's setting: 0 = every location. */
export const scopeKey = (itemId: number, locationId: number | null): string => `${itemId}/${locationId ?? 0}`;

/** Whole settings of items, by scope, with their seasons: of all rows of these items, or only of those that say more than min,
 *  max and their rules (and have seasons) of all items. */
export const readItemSettings = (tx: Tx, itemIds: readonly number[] | null): Promise<Map<string, PolicySetting>> =>
  askItemSettings(new Asking(tx, 'together'), itemIds)();

type SeasonRow = {
  readonly itemId: number;
  readonly locationId: number | null;
  readonly from: string;
  readonly to: string;
  readonly everyYear: number;
  readonly min: string | null;
  readonly max: string | null;
};
type SettingRow = Raw & { itemId: number; locationId: number | null };

/** The same, asked for beside other things. */
export function askItemSettings(
  ask: Asking,
  itemIds: readonly number[] | null,
): () => Promise<Map<string, PolicySetting>> {
  if (itemIds?.length === 0) return async () => new Map();
  const where = itemIds === null ? 'TRUE' : 'item_id IN (?)';
  const values = itemIds === null ? [] : [itemIds];
  const seasons = ask.rows<SeasonRow>(
    `SELECT item_id AS itemId, location_id AS locationId, from_day AS \`from\`, to_day AS \`to\`, every_year AS everyYear,
            min_quantity AS min, max_quantity AS max FROM policy_season WHERE ${where} ORDER BY from_day`,
    values,
  );
  const rows = ask.rows<SettingRow>(
    `SELECT item_id AS itemId, location_id AS locationId, ${columns}, supply_location_id AS supplyPlace FROM policy
      WHERE ${where} ${itemIds ? '' : 'AND special = 1'}`,
    values,
  );
  return async () => settingsOf(await seasons(), await rows());
}

function settingsOf(seasonRows: readonly SeasonRow[], rows: readonly SettingRow[]): Map<string, PolicySetting> {
  const seasons = new Map<string, Season[]>();
  for (const s of seasonRows) {
    const key = scopeKey(s.itemId, s.locationId);
    const { from, to } = s;
    const season = { from, to, everyYear: s.everyYear === 1, min: micro(s.min), max: micro(s.max) };
    seasons.set(key, [...(seasons.get(key) ?? []), season]);
  }
  const settings = new Map<string, PolicySetting>();
  for (const r of rows) {
    const key = scopeKey(r.itemId, r.locationId);
    settings.set(key, toSetting(r, seasons.get(key)));
    seasons.delete(key);
  }
  // A season where nothing else is said. Of all items, the rest of such a row is read with the plain ones.
  for (const [key, of] of seasons) settings.set(key, { ...emptySetting, seasons: of });
  return settings;
}
