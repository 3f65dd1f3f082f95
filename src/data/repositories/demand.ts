import { list, type Tx } from '../sql';
import { type Pair, THESE, theseOf } from './levels';

export type DayOfMovements = Pair & { readonly date: string; readonly change: string; readonly sold: string };

/** What changed and what was sold on each day after one, for all pairs of these items. */
export async function readDays(tx: Tx, itemIds: readonly number[], after: string): Promise<DayOfMovements[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<DayOfMovements>(
    `SELECT item_id AS itemId, location_id AS locationId, business_date AS date, SUM(on_hand_change) AS \`change\`,
            SUM(IF(kind = 'sale', -on_hand_change, 0)) AS sold
       FROM movement WHERE item_id IN (${ids.sql}) AND business_date > :after
      GROUP BY item_id, location_id, business_date`,
    { ...ids.values, after },
  );
}

/** What was used on each day after one, as it was brought by a file, for all pairs of these items. */
export async function readBroughtDays(tx: Tx, itemIds: readonly number[], after: string): Promise<DayOfMovements[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<DayOfMovements>(
    `SELECT item_id AS itemId, location_id AS locationId, day AS date, '0' AS \`change\`, quantity AS sold
       FROM daily_demand WHERE item_id IN (${ids.sql}) AND day > :after ORDER BY day`,
    { ...ids.values, after },
  );
}

/** The day of the first movement of each pair of these items. */
export async function readFirstDays(tx: Tx, itemIds: readonly number[]): Promise<(Pair & { readonly date: string })[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<Pair & { date: string }>(
    `SELECT item_id AS itemId, location_id AS locationId, MIN(business_date) AS date FROM movement
      WHERE item_id IN (${ids.sql}) GROUP BY item_id, location_id`,
    ids.values,
  );
}

export type RateRow = Pair & {
  readonly perDay: string;
  /** Standard deviation of a day's use. */
  readonly sdPerDay: string;
  /** Days that were counted. */
  readonly days: number;
  /** What a year of it costs, minor units; null where no cost is known. */
  readonly annualMinor: number | null;
  /** Of whole weeks, in thousandths. */
  readonly variation: number | null;
};
export type ClassedRate = RateRow & { readonly abc: 'A' | 'B' | 'C' | null; readonly xyz: 'X' | 'Y' | 'Z' | null };

export async function readRates(tx: Tx, itemIds: readonly number[]): Promise<ClassedRate[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<ClassedRate>(
    `SELECT item_id AS itemId, location_id AS locationId, per_day AS perDay, sd_per_day AS sdPerDay, days_counted AS days,
            annual_minor AS annualMinor, variation_thousandths AS variation, abc, xyz
       FROM demand_rate WHERE item_id IN (${ids.sql})`,
    ids.values,
  );
}

/** Mean use a day of these pairs alone. */
export const readUseAt = async (tx: Tx, pairs: readonly Pair[]) =>
  pairs.length === 0
    ? []
    : tx.rowsOf<Pair & { readonly perDay: string }>(
        `SELECT r.item_id AS itemId, r.location_id AS locationId, r.per_day AS perDay
           FROM ${THESE} STRAIGHT_JOIN demand_rate r ON r.item_id = x.i AND r.location_id = x.l`,
        [theseOf(pairs)],
      );

const rateColumns = ['per_day', 'sd_per_day', 'days_counted', 'annual_minor', 'variation_thousandths', 'measured_on'];

export const upsertRates = (tx: Tx, rows: readonly RateRow[], measuredOn: string) =>
  tx.insertMany(
    `INSERT INTO demand_rate (item_id, location_id, ${rateColumns.join(', ')})`,
    rows.map((r) => [
      ...[r.itemId, r.locationId, r.perDay, r.sdPerDay, r.days, r.annualMinor, r.variation],
      measuredOn,
    ]),
    `ON DUPLICATE KEY UPDATE ${rateColumns.map((c) => `${c} = VALUES(${c})`).join(', ')}`,
  );

/** What classes are made from, of everything: item, place, value of a year, variation in thousandths, classes it has. */
export const readClassFigures = async (tx: Tx) =>
  (await tx.arrays(
    'SELECT item_id, location_id, COALESCE(annual_minor, 0), variation_thousandths, abc, xyz FROM demand_rate ORDER BY location_id, item_id',
  )) as [number, number, number, number | null, 'A' | 'B' | 'C' | null, 'X' | 'Y' | 'Z' | null][];

export const updateClasses = (tx: Tx, rows: readonly (Pair & { abc: string; xyz: string })[]) =>
  tx.insertMany(
    // Rows are there; the columns without a default only make the statement whole.
    'INSERT INTO demand_rate (item_id, location_id, abc, xyz, per_day, measured_on)',
    rows.map((r) => [r.itemId, r.locationId, r.abc, r.xyz, '1', '2000-01-01']),
    'ON DUPLICATE KEY UPDATE abc = VALUES(abc), xyz = VALUES(xyz)',
  );

export const deleteRate = (tx: Tx, { itemId, locationId }: Pair) =>
  tx.run('DELETE FROM demand_rate WHERE item_id = :itemId AND location_id = :locationId', { itemId, locationId });

/** Which items these take the place of, however many steps back: predecessor and who inherits its history. */
export async function readPredecessors(
  tx: Tx,
  itemIds: readonly number[],
): Promise<readonly { readonly itemId: number; readonly heirId: number }[]> {
  const found: { itemId: number; heirId: number }[] = [];
  const heirs = new Map(itemIds.map((id) => [id, [id]]));
  for (let step = [...itemIds]; step.length > 0; ) {
    const rows = await tx.rowsOf<{ itemId: number; next: number }>(
      'SELECT id AS itemId, successor_id AS next FROM item WHERE successor_id IN (?)',
      step,
    );
    // A chain that leads back to itself is refused when it is entered; here it would only end early.
    step = [];
    for (const { itemId, next } of rows) {
      if (heirs.has(itemId) && found.some((f) => f.itemId === itemId)) continue;
      const own = heirs.get(next) ?? [];
      for (const heirId of own) found.push({ itemId, heirId });
      heirs.set(itemId, [...(heirs.get(itemId) ?? []), ...own]);
      step.push(itemId);
    }
  }
  return found;
}
