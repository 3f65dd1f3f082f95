'use client';

import { useEffect } from 'react';
import type { WaysView, WayView } from '@/services/planning/readWays';
import { countOf, type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { useRead } from '../frame/use-read.client';

/** What a way adds up to, part by part; parts that are 0 are left out. */
export function partsOfWay(w: WayView, format: Format, currency: string): string {
  const amount = (minor: number) => format.amount(minor, currency);
  return [
    `goods and charges ${amount(w.goodsAndCharges)}`,
    w.order > 0 ? `order ${amount(w.order)}` : '',
    w.carrying > 0 ? `carrying ${amount(w.carrying)}` : '',
    w.shortCost > 0 ? `${w.short === 0 ? 'under 1' : w.short} not sold ${amount(w.shortCost)}` : '',
  ]
    .filter(Boolean)
    .join(' + ');
}

const keyOfWay = (w: WayView): string => w.deliveries.map((d) => `${d.sourceId}/${d.locationId}/${d.base}`).join(' ');

/** How a way stands to the day on which stock runs out. */
export function slackOfWay(w: Pick<WayView, 'slackDays'>): string {
  if (w.slackDays === null) return '';
  if (w.slackDays < 0) return `${countOf(-w.slackDays, 'day')} too late`;
  return w.slackDays === 0 ? 'just in time' : `${countOf(w.slackDays, 'day')} to spare`;
}

const whys = { no_price: 'no price or rate is on file', blocked: 'blocked' } as const;

export type ReadWays = { readonly needId: number; readonly ways: readonly WayView[]; readonly missing: number };

/** The ways to cover a need, the cheapest first, each with all that was weighed; taken by a press, or by W and its number. */
export function Ways(props: {
  needId: number;
  fingerprint: string;
  /** W was pressed: the next figure takes a way. */
  picking: boolean;
  onTake: ((way: WayView) => void) | null;
  onRead: (read: ReadWays) => void;
}) {
  const { needId, onTake, onRead } = props;
  const format = useFormat();
  const read = useRead<WaysView>(`/api/reads/ways?need=${needId}&at=${encodeURIComponent(props.fingerprint)}`);
  const ways = read !== null && read !== 'failed' ? read.ways : null;
  const missing = read !== null && read !== 'failed' ? read.missing : 0;
  useEffect(() => {
    if (ways) onRead({ needId, ways, missing });
  }, [needId, ways, missing, onRead]);
  return (
    <div>
      <h3 className="head">
        Ways {props.picking && <span className="font-normal text-action">press its number</span>}
        {read !== null && read !== 'failed' && read.runOut && (
          <span className="font-normal text-muted">stock runs out {format.date(read.runOut)}</span>
        )}
      </h3>
      {read === null && <p className="second">Loading</p>}
      {read === 'failed' && <p className="second">Could not be read just now.</p>}
      {read !== null && read !== 'failed' && (
        <>
          <ol className="grid gap-2.5">
            {read.ways.map((w, i) => (
              <li key={keyOfWay(w)} className="grid grid-cols-[1.1rem_1fr_auto] gap-x-2">
                <span className="text-muted">{i + 1}</span>
                <span>
                  {w.deliveries.map((d, k) => (
                    <span key={d.name} className={k > 0 ? 'block' : ''}>
                      {k > 0 && '+ '}
                      <span className={w.shown ? 'font-semibold' : ''}>{d.name}</span>, {format.quantity(d.packs)}{' '}
                      {plural(d.packName || read.unit, d.packs)}
                    </span>
                  ))}
                </span>
                <span className="figure font-semibold">{format.amount(w.total, read.currency)}</span>
                <span className="second col-start-2">
                  here {w.deliveries.map((d) => format.date(d.arrives)).join(' and ')}
                  {slackOfWay(w) && (
                    <span className={w.slackDays !== null && w.slackDays < 0 ? 'text-stop' : ''}>
                      , {slackOfWay(w)}
                    </span>
                  )}
                  {w.overshoot > 0 && `, ${format.quantity(w.overshoot)} ${plural(read.unit, w.overshoot)} over`}
                </span>
                {onTake && (
                  <button
                    type="button"
                    className="link second text-right"
                    aria-label={`Take way ${i + 1}: ${w.deliveries.map((d) => d.name).join(' and ')}`}
                    onClick={() => onTake(w)}
                  >
                    take
                  </button>
                )}
                <span className="second col-span-2 col-start-2">
                  {partsOfWay(w, format, read.currency)} · {format.amount(w.each, read.currency)} each landed
                  {w.sharedBy > 1 && `, sums of the order shared by ${countOf(w.sharedBy, 'line')}`}
                </span>
              </li>
            ))}
          </ol>
          {read.ways.length === 0 && (
            <p className="second">No supplier with a price, and no place that could send it.</p>
          )}
          {read.left.map((l) => (
            <p key={l.name} className="second">
              {l.name}: {whys[l.why]}.
            </p>
          ))}
        </>
      )}
    </div>
  );
}
