'use client';

import { fieldsOf, type PolicyField, type PolicyOrigin } from '@/core/policy';
import type { PolicyLine, PolicySheetHead } from '@/services/planning/readPolicies';
import type { PolicyDetail } from '@/services/planning/readPolicyDetail';
import { useMay } from '../may-context.client';
import type { Draft } from './use-policy-drafts.client';

const origins: Readonly<Record<PolicyOrigin, string>> = {
  location: 'set here',
  item: 'from every location',
  category: 'from its category',
  company: 'from the company',
  none: 'nobody says otherwise',
};

const fieldLabels: Readonly<Partial<Record<PolicyField, string>>> = {
  trigger: 'A need is raised',
  refill: 'Refill',
  rounding: 'Rounding',
  displayMin: 'On display at least',
  reserve: 'Reserve, never promised',
  safety: 'Safety stock',
  windowDays: 'Days taken together',
  useStock: 'Use stock that is there',
  keepSafety: 'Keep safety stock',
  supply: 'Supplied by',
  supplyPlace: 'Sent from',
  targetKind: 'Service measured by',
  targetThousandths: 'Service target, %',
};
const optionWords: Readonly<Partial<Record<PolicyField, readonly (readonly [string, string])[]>>> = {
  trigger: [
    ['at_or_below', 'at the level or below'],
    ['strictly_below', 'strictly below the level'],
  ],
  refill: [
    ['up_to_max', 'up to the maximum'],
    ['up_to_min', 'up to the minimum'],
  ],
  rounding: [
    ['up', 'up to whole packs'],
    ['nearest', 'to the nearest pack'],
    ['none', 'not at all'],
  ],
  useStock: [
    ['yes', 'yes'],
    ['no', 'no'],
  ],
  keepSafety: [
    ['yes', 'yes'],
    ['no', 'no'],
  ],
  supply: [
    ['supplier', 'a supplier'],
    ['place', 'one of our places'],
  ],
  targetKind: [
    ['cycle_service', 'order cycles without a shortage'],
    ['fill_rate', 'pieces handed over at once'],
  ],
};

/** The values that have no column; those that the chosen kind does not use are not there. */
export function PolicySettings(props: {
  line: PolicyLine;
  draft: Draft | undefined;
  places: PolicySheetHead['places'];
  detail: PolicyDetail | null;
  kind: PolicyLine['kind'];
  onChange: (field: PolicyField, text: string) => void;
}) {
  const { line, draft, detail, kind } = props;
  const mayEdit = useMay('policies.edit');
  const used = kind === 'none' ? [] : fieldsOf[kind].filter((f) => fieldLabels[f]);
  const supplied =
    kind === 'phase_out' || kind === 'not_carried' ? [] : (['supply', 'supplyPlace', 'reserve'] as const);
  const ownText = (f: PolicyField) => draft?.now[f] ?? line.own[f] ?? '';
  const bySender = (draft?.now.supply || line.own.supply || detail?.values.supply) === 'place';
  const fields = [...used, ...supplied].filter((f) => f !== 'supplyPlace' || (bySender && line.locationId !== null));
  if (fields.length === 0) return null;
  return (
    <details className="mt-1">
      <summary className="link cursor-pointer">Settings of this policy</summary>
      <div className="mt-2 grid gap-2">
        {fields.map((f) => {
          const options =
            f === 'supplyPlace'
              ? props.places.filter((p) => p.id !== line.locationId).map((p) => [String(p.id), p.name] as const)
              : optionWords[f];
          const own = ownText(f);
          const inForce = detail?.values[f] ?? '';
          const shown = options?.find(([v]) => v === inForce)?.[1] ?? inForce;
          return (
            <div key={f} className="grid grid-cols-[1fr_168px] items-center gap-2">
              <span>
                {fieldLabels[f]}
                {own === '' && detail && (
                  <span className="second block">
                    {shown === '' ? '–' : shown}
                    {detail.from[f] !== 'none' && `, ${origins[detail.from[f]]}`}
                  </span>
                )}
              </span>
              {options ? (
                <select
                  className="entry"
                  aria-label={fieldLabels[f]}
                  value={own}
                  disabled={!mayEdit}
                  onChange={(e) => props.onChange(f, e.target.value)}
                >
                  <option value="">as inherited</option>
                  {options.map(([v, words]) => (
                    <option key={v} value={v}>
                      {words}
                    </option>
                  ))}
                </select>
              ) : (
                <input
                  className="entry figure"
                  aria-label={fieldLabels[f]}
                  inputMode="decimal"
                  value={own}
                  placeholder={inForce === '' ? 'inherited' : inForce}
                  readOnly={!mayEdit}
                  onChange={(e) => props.onChange(f, e.target.value)}
                />
              )}
            </div>
          );
        })}
        {mayEdit && Object.keys(line.own).length > 0 && (
          <button
            type="button"
            className="btn btn-outline justify-self-start"
            onClick={() => {
              for (const f of Object.keys(line.own)) props.onChange(f as PolicyField, '');
            }}
          >
            Reset to what is inherited
          </button>
        )}
      </div>
    </details>
  );
}
