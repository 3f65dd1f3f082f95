import { atLocations, type SqlValues, type Tx } from '../sql';

/** What of the policy sheet is asked for, beyond what lists of items are found by. */
export type PolicyFilter = {
  readonly show:
    | ''
    | 'without'
    | 'below'
    | 'above'
    | 'need'
    | 'min_max'
    | 'fixed_quantity'
    | 'periodic'
    | 'days_of_cover'
    | 'lot_for_lot'
    | 'per_demand'
    | 'phase_out'
    | 'not_carried';
  readonly abcXyz: '' | 'A' | 'B' | 'C' | 'X' | 'Y' | 'Z';
  readonly maker: string;
};

/** Items that at one of these places are as asked; null = no such condition. Stored results of the need run and settings are
 *  looked up; nothing is reckoned here. `withDefault` are categories that give their items a policy. */
export async function readPolicyItems(
  tx: Tx,
  { show, abcXyz, maker }: PolicyFilter,
  locationIds: readonly number[],
  withDefault: ReadonlySet<number>,
): Promise<ReadonlySet<number> | null> {
  const sets: Set<number>[] = [];
  const ids = async (sql: string, values: SqlValues) => {
    const rows = await tx.rows<{ id: number }>(sql, values);
    sets.push(new Set(rows.map((r) => r.id)));
  };
  const state = atLocations('s.location_id', locationIds);
  const flag = { below: 's.below_min = 1', above: 's.excess > 0', need: "s.need_state = 'open'" } as const;
  if (show === 'below' || show === 'above' || show === 'need')
    await ids(
      `SELECT DISTINCT s.item_id AS id FROM item_location_state s WHERE ${flag[show]} ${state.sql}`,
      state.values,
    );
  else if (show === 'without') {
    const at = atLocations('p.location_id', locationIds);
    const rows = await tx.rows<{ id: number; categoryId: number }>(
      `SELECT i.id, i.category_id AS categoryId FROM item i
        WHERE NOT EXISTS (SELECT 1 FROM policy e WHERE e.item_id = i.id AND e.scope = 0 AND e.kind IS NOT NULL)
          AND (SELECT COUNT(*) FROM policy p WHERE p.item_id = i.id AND p.kind IS NOT NULL ${at.sql}) < :places`,
      { ...at.values, places: locationIds.length },
    );
    sets.push(new Set(rows.filter((r) => !withDefault.has(r.categoryId)).map((r) => r.id)));
  } else if (show !== '') await ids('SELECT DISTINCT p.item_id AS id FROM policy p WHERE p.kind = :show', { show });
  if (abcXyz !== '') {
    const at = atLocations('r.location_id', locationIds);
    const column = 'ABC'.includes(abcXyz) ? 'abc' : 'xyz';
    await ids(`SELECT DISTINCT r.item_id AS id FROM demand_rate r WHERE r.${column} = :abcXyz ${at.sql}`, {
      abcXyz,
      ...at.values,
    });
  }
  if (maker !== '') await ids('SELECT id FROM item WHERE maker = :maker', { maker });
  if (sets.length === 0) return null;
  const [first, ...rest] = sets as [Set<number>, ...Set<number>[]];
  return new Set([...first].filter((id) => rest.every((s) => s.has(id))));
}
