'use client';

import Link from 'next/link';
import type { PolicyField, PolicyKind } from '@/core/policy';
import type { PolicyLine, PolicySheetHead } from '@/services/planning/readPolicies';
import type { PolicyDetail } from '@/services/planning/readPolicyDetail';
import { type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { useRead } from '../frame/use-read.client';
import { CourseOfStock } from '../marks/course-of-stock.client';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { neededOf, ReckoningSum } from '../reckoning/reckoning';
import { Advised } from './advised-minimum.client';
import { kindSentences } from './cells';
import { hintWords } from './policy-row';
import { PolicySettings } from './policy-settings.client';
import type { Draft } from './use-policy-drafts.client';

type Props = {
  line: PolicyLine;
  index: number;
  draft: Draft | undefined;
  places: PolicySheetHead['places'];
  onChange: (field: PolicyField, text: string) => void;
};

/** What stands behind a line of the policy sheet: the advised minimum with its sum, why there is a need, how the policy works
 *  with figures of its own, and the values that have no column. */
export function PolicyPanel(props: Props) {
  const { line, draft } = props;
  const format = useFormat();
  const everywhere = line.locationId === null;
  const detail = useRead<PolicyDetail>(
    everywhere ? null : `/api/reads/policy?item=${line.itemId}&location=${line.locationId}`,
  );
  const known = detail !== null && detail !== 'failed' ? detail : null;
  const kind =
    draft?.now.kind === undefined ? line.kind : draft.now.kind === '' ? 'none' : (draft.now.kind as PolicyKind);
  const units = plural(line.unit, 2_000_000);
  return (
    <div className="grid gap-6">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="name text-[16px]">{line.name}</h2>
        <span className="second whitespace-nowrap">{line.location}</span>
      </div>
      {known?.advice && (kind === 'min_max' || kind === 'fixed_quantity' || kind === 'none') && (
        <Advised {...props} advice={known.advice} detail={known} format={format} />
      )}
      {!everywhere && (
        <section>
          <h3 className="head">
            {line.reckoning && line.reckoning.quantity > 0
              ? `Why ${format.quantity(neededOf(line.reckoning))}`
              : 'Need'}
          </h3>
          {line.reckoning ? (
            <ReckoningSum
              sum={line.reckoning}
              format={format}
              unit={line.unit}
              packName={line.packName ?? line.unit}
              sent={line.sentFrom !== null}
              origins={{}}
            />
          ) : (
            <p className="second">{kindSentences[kind]}</p>
          )}
          {line.hints.length > 0 && <p className="mt-2 text-attention">{capital(hintWords(line, format))}.</p>}
          {line.excess > 0 && (
            <p className="mt-2 text-attention">
              {format.quantity(line.excess)} {units} beyond the maximum.
            </p>
          )}
        </section>
      )}
      <section>
        <h3 className="head">How it works here</h3>
        <p className="second mb-2">
          {everywhere
            ? `What is set here holds at every location that has nothing of its own. ${kindSentences[kind]}`
            : kindSentences[kind]}
        </p>
        {known && <Examples detail={known} line={line} kind={kind} format={format} />}
        <PolicySettings {...props} detail={known} kind={kind} />
        {known && known.seasons.length > 0 && <Seasons detail={known} format={format} />}
        <p className="mt-2">
          <Link className="link" prefetch={false} href={`/items/${line.itemId}/file#seasons`}>
            {known && known.seasons.length > 0 ? 'Change seasons' : 'Add a season'}
          </Link>
        </p>
      </section>
      {line.gauge && (
        <section>
          <h3 className="head">Here now</h3>
          <LevelStrip gauge={line.gauge} format={format} id="panel" />
          <p className="second mt-1">
            in {units}: {gaugeWords(line.gauge, format)}
            {line.gauge.min !== null && ` · min ${format.quantity(line.gauge.min)}`}
            {line.gauge.max !== null && ` · max ${format.quantity(line.gauge.max)}`}
          </p>
          {known && known.others.length > 0 && (
            <ul className="second mt-1">
              {known.others.map((o) => (
                <li key={o.location}>
                  {o.surplus > 0
                    ? `${o.location} can send ${format.quantity(o.surplus)} by ${format.date(o.arrives)}`
                    : `${o.location} has ${format.quantity(o.free)}, none to spare`}
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
      {line.locationId !== null && (
        <>
          <CourseOfStock itemId={line.itemId} locationId={line.locationId} unit={line.unit} />
          <p>
            <Link className="link" prefetch={false} href={`/items/${line.itemId}/outlook?location=${line.locationId}`}>
              Through time: projection, run-out, order-by
            </Link>
          </p>
        </>
      )}
    </div>
  );
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** The rules with figures of this very item. */
function Examples({
  detail,
  line,
  kind,
  format,
}: {
  detail: PolicyDetail;
  line: PolicyLine;
  kind: PolicyLine['kind'];
  format: Format;
}) {
  const { values, level, position } = detail;
  const units = plural(line.unit, 2_000_000);
  const said: string[] = [];
  if (
    level !== null &&
    position !== null &&
    (kind === 'min_max' || kind === 'fixed_quantity' || kind === 'days_of_cover')
  ) {
    const at = values.trigger === 'at_or_below';
    said.push(
      `${at ? 'At or below' : 'Strictly below'}: with ${format.quantity(level)} ${units} a need is ${at ? 'raised' : 'not raised yet'}; now there are ${format.quantity(position)}, on the way and owed included.`,
    );
  }
  if (kind === 'min_max' && line.reckoning && line.reckoning.quantity > 0)
    said.push(
      values.refill === 'up_to_min' || values.max === ''
        ? `Refill only up to the minimum: ${format.quantity(line.reckoning.toBuy)} ${units}.`
        : `Refill up to the maximum: ${format.quantity(line.reckoning.toBuy)} ${units}.`,
    );
  if (detail.sentFrom)
    said.push(
      `Sent from ${detail.sentFrom}${detail.arrives ? `, here ${format.date(detail.arrives)} if sent today` : ''}.`,
    );
  else if (detail.supplier)
    said.push(
      `Rounded ${values.rounding === 'none' ? 'not at all' : values.rounding === 'nearest' ? `to the nearest ${detail.pack.name}` : `up to whole ${plural(detail.pack.name, 2e6)}`}${detail.pack.micro === 1e6 ? '' : ` of ${format.quantity(detail.pack.micro)}`}: 1 ${line.unit} short becomes ${values.rounding === 'none' ? '1' : format.quantity(detail.pack.micro)}.`,
    );
  return said.length === 0 ? null : (
    <ul className="second mb-2 grid gap-1">
      {said.map((s) => (
        <li key={s}>{s}</li>
      ))}
    </ul>
  );
}

function Seasons({ detail, format }: { detail: PolicyDetail; format: Format }) {
  return (
    <ul className="mt-2 grid gap-1">
      {detail.seasons.map((s) => (
        <li key={`${s.from}${s.to}`} className="flex justify-between gap-2">
          <span>
            {s.everyYear
              ? `${format.date(s.from).split(' ').slice(1).join(' ')} to ${format.date(s.to).split(' ').slice(1).join(' ')}, every year`
              : `${format.dateWithYear(s.from)} to ${format.dateWithYear(s.to)}`}
            {detail.inSeason?.from === s.from && <span className="second"> in force</span>}
          </span>
          <span className="figure">
            {s.min === null ? '–' : format.quantity(s.min)} / {s.max === null ? '–' : format.quantity(s.max)}
          </span>
        </li>
      ))}
    </ul>
  );
}
