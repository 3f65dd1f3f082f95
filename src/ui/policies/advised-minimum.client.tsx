'use client';

import type { PolicyField } from '@/core/policy';
import type { PolicyLine } from '@/services/planning/readPolicies';
import type { AdvisedMinimum, PolicyDetail } from '@/services/planning/readPolicyDetail';
import { type Format, plural } from '../format';
import { useMay } from '../may-context.client';
import { SumLine } from '../reckoning/reckoning';
import type { Draft } from './use-policy-drafts.client';

const tenth = (format: Format, n: number) => format.quantity(Math.round(n * 10) * 100_000);

/** Demand in the lead time + safety stock + undershoot, each with its formula, and the value to take over. */
export function Advised({
  line,
  draft,
  advice,
  detail,
  format,
  onChange,
}: {
  line: PolicyLine;
  draft: Draft | undefined;
  advice: AdvisedMinimum;
  detail: PolicyDetail;
  format: Format;
  onChange: (field: PolicyField, text: string) => void;
}) {
  const mayEdit = useMay('policies.edit');
  const target = `${tenth(format, advice.targetThousandths / 10)} %`;
  const lead =
    advice.leadFrom === 'van'
      ? 'on the road'
      : advice.leadFrom === 'measured'
        ? `${detail.supplier} measured, n = ${advice.observed}`
        : `${detail.supplier ?? 'no supplier'} as stated`;
  const rest = advice.undershootVariance > 0 ? ` + ${tenth(format, advice.undershootVariance)}` : '';
  const formula =
    advice.z === null
      ? `${advice.method === 'counts' ? 'counted by the piece' : 'read off the distribution'}${advice.empirical ? `, over the ${Math.min(60, advice.observed)} latest lead times as they were` : ''}`
      : `${format.quantity(Math.round(advice.z * 1000) * 1000)} × √(${tenth(format, advice.days)} × ${tenth(format, advice.sdPerDay)}² + ${tenth(format, advice.perDay / 1e6)}² × ${tenth(format, advice.leadSd)}²${rest})`;
  const typed = draft?.now.min ?? line.values.min;
  const value = String(advice.rounded / 1e6);
  const packs =
    detail.pack.micro === 1e6
      ? plural(line.unit, 2e6)
      : `${plural(detail.pack.name, 2e6)} of ${format.quantity(detail.pack.micro)}`;
  return (
    <section>
      <h3 className="head flex justify-between">
        <span>Minimum {typed || '–'}</span>
        {draft?.now.min !== undefined && <span className="second font-normal">was {line.values.min || '–'}</span>}
      </h3>
      <SumLine
        label="Sold in the lead time"
        origin={`${tenth(format, advice.perDay / 1e6)} a day × ${tenth(format, advice.days)} days${advice.reviewDays > 0 ? ` (${tenth(format, advice.leadMean)} + ${tenth(format, advice.reviewDays)} between order days)` : ''}, ${lead}`}
        figure={format.quantity(advice.leadTimeDemand)}
      />
      <SumLine
        operator="+"
        label={
          advice.targetKind === 'fill_rate'
            ? `Safety stock for ${target} handed over at once`
            : `Safety stock for ${target} of cycles`
        }
        origin={advice.clipped ? 'the target alone asks for less than nothing: none' : formula}
        figure={format.quantity(advice.safety)}
      />
      {advice.undershoot > 0 && (
        <SumLine
          operator="+"
          label="Undershoot of a daily look"
          origin={`(${tenth(format, advice.sdPerDay)}² + ${tenth(format, advice.perDay / 1e6)}²) ÷ (2 × ${tenth(format, advice.perDay / 1e6)})`}
          figure={format.quantity(advice.undershoot)}
        />
      )}
      <SumLine label="Advised" figure={format.quantity(advice.minimum)} result />
      <SumLine
        label={<span className="font-normal">rounded up to {packs}</span>}
        figure={<span className="text-action">{format.quantity(advice.rounded)}</span>}
      />
      {mayEdit &&
        (typed === value ? (
          <p className="second mt-1">The minimum is the advised one.</p>
        ) : (
          <button type="button" className="btn btn-outline mt-1" onClick={() => onChange('min', value)}>
            Take this value
          </button>
        ))}
    </section>
  );
}
