import {
  cellText,
  checkSetting,
  emptySetting,
  isPolicyField,
  type PolicyField,
  type PolicyKind,
  type PolicySetting,
  policyFields,
  readCell,
} from '@/core/policy';
import type { PolicyScope } from '@/data/repositories/policies';
import { scopeKey } from '@/data/repositories/policySettings';
import type { FieldFault } from '../failure';

/** Cells of one line of the policy sheet: what the person saw in them (`was`) and what they shall say (`now`); '' = follow the
 *  next wider level. Only the cells that are changed. */
export type PolicyEdit = PolicyScope & {
  readonly was: Readonly<Record<string, string>>;
  readonly now: Readonly<Record<string, string>>;
};

export type SettingCells = Readonly<Partial<Record<PolicyField, string>>>;

/** What a setting says, as cells; without those where it says nothing. */
export const cellsOf = (s: PolicySetting | null | undefined): SettingCells =>
  Object.fromEntries(
    policyFields.flatMap((f) => {
      const text = s ? cellText(f, s[f] as never) : '';
      return text === '' ? [] : [[f, text]];
    }),
  );

export type EditedSetting = PolicyScope & {
  readonly before: PolicySetting | null;
  /** Null = nothing is said any more: the row goes. */
  readonly after: PolicySetting | null;
};

export type CellsFault = { readonly row: number; readonly column: string; readonly fault: FieldFault };

/** Settings as the edits would have them, over those kept (by `scopeKey`). A line that gets values while nobody says a kind is
 *  min/max, or fixed quantity or days of cover where it says those. Errors, each at its row and column: what cells say wrong,
 *  a setting that may not be (minimum above maximum). */
export function editedSettings(
  edits: readonly PolicyEdit[],
  kept: ReadonlyMap<string, PolicySetting>,
  widerKind: (itemId: number) => PolicyKind | null,
): { readonly rows: EditedSetting[]; readonly faults: CellsFault[] } {
  const faults: CellsFault[] = [];
  const rows = edits.map((e, row): EditedSetting => {
    const before = kept.get(scopeKey(e.itemId, e.locationId)) ?? null;
    const after: Record<string, unknown> = { ...(before ?? emptySetting) };
    for (const [column, text] of Object.entries(e.now)) {
      if (!isPolicyField(column)) continue;
      const value = readCell(column, text);
      if (value.ok) after[column] = value.value;
      else faults.push({ row, column, fault: value.error });
    }
    const said = after as PolicySetting;
    const checked = checkSetting(said);
    if (!checked.ok) faults.push({ row, column: columnOf(checked.error, e), fault: checked.error });
    return { itemId: e.itemId, locationId: e.locationId, before, after: said };
  });
  const afterOf = new Map(rows.map((r) => [scopeKey(r.itemId, r.locationId), r.after]));
  const kindAt = (itemId: number, locationId: number | null): PolicyKind | null => {
    const key = scopeKey(itemId, locationId);
    const s = afterOf.has(key) ? afterOf.get(key) : kept.get(key);
    return s?.kind ?? (locationId === null ? widerKind(itemId) : kindAt(itemId, null));
  };
  return {
    faults,
    rows: rows.map((r) => {
      const s = r.after as PolicySetting;
      const given =
        kindAt(r.itemId, r.locationId) !== null
          ? null
          : s.fixed !== null
            ? 'fixed_quantity'
            : s.coverDays !== null
              ? 'days_of_cover'
              : s.min !== null || s.max !== null
                ? 'min_max'
                : null;
      const after = given ? { ...s, kind: given as PolicyKind } : s;
      return { ...r, after: Object.keys(cellsOf(after)).length === 0 ? null : after };
    }),
  };
}

function columnOf(fault: Exclude<ReturnType<typeof checkSetting>, { ok: true }>['error'], e: PolicyEdit): string {
  if (fault.kind === 'not_positive') return fault.field;
  return 'max' in e.now && !('min' in e.now) ? 'max' : 'min';
}

/** The first edit whose cells are no longer as they were seen, with what stands there now. */
export function staleEdit(
  edits: readonly PolicyEdit[],
  kept: ReadonlyMap<string, PolicySetting>,
): { readonly row: number; readonly now: string } | null {
  for (const [row, e] of edits.entries()) {
    const cells = cellsOf(kept.get(scopeKey(e.itemId, e.locationId)));
    const other = Object.entries(e.was).find(([column, text]) => (cells[column as PolicyField] ?? '') !== text);
    if (other)
      return {
        row,
        now: Object.keys(e.was)
          .map((c) => cells[c as PolicyField] || '–')
          .join(' / '),
      };
  }
  return null;
}
