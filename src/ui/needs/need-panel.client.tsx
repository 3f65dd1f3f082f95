'use client';

import Link from 'next/link';
import type { Reckoning } from '@/core/netting';
import type { NeedView } from '@/services/planning/needViews';
import type { Bought } from '@/services/purchase/bought';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { useRead } from '../frame/use-read.client';
import { BoughtLines } from '../items/bought-lines';
import { ruleWords } from '../items/words';
import { CourseOfStock } from '../marks/course-of-stock.client';
import { neededOf, ReckoningSum } from '../reckoning/reckoning';
import { Mend } from './mend.client';
import { netOf, priceOf } from './priceOf';
import { Ways } from './ways.client';

/** How the suggested quantity came about, and what was bought before. */
export function NeedPanel({
  need,
  currency,
  today,
  ways,
  onMended,
}: {
  need: NeedView;
  currency: string;
  today: string;
  /** What can be done with a way; null while nothing can. */
  ways: Pick<Parameters<typeof Ways>[0], 'picking' | 'onTake' | 'onRead'>;
  /** Something that was in the way is on file now. */
  onMended: () => void;
}) {
  const format = useFormat();
  const bought = useRead<readonly Bought[]>(`/api/reads/last-bought?item=${need.itemId}`);
  // The sum is another one once stock, or what is suggested, is.
  const seen = encodeURIComponent(`${need.fingerprint} ${Object.values(need.gauge).join()}`);
  const sum = useRead<{ readonly reckoning: Reckoning | null }>(`/api/reads/reckoning?need=${need.id}&at=${seen}`);
  const price = priceOf(need, need.packs, today);
  return (
    <div className="grid gap-6">
      <div>
        <div className="mb-4 flex items-baseline justify-between gap-3">
          <h2 className="text-[16px] font-semibold">
            <Link prefetch={false} href={`/items/${need.itemId}`} className="name">
              {need.itemName}
            </Link>
          </h2>
          <span className="second whitespace-nowrap">{need.location}</span>
        </div>
        {need.boughtFor && (
          <p className="mb-3">
            {need.boughtFor.who} {need.boughtFor.kind === 'request' ? 'asks for it on' : 'waits for it, order'}{' '}
            <Link prefetch={false} className="link" href={need.boughtFor.href}>
              {need.boughtFor.document}
            </Link>
            :{' '}
            {need.boughtFor.straight
              ? 'bought one to one, and sent by the supplier straight to the customer.'
              : 'bought one to one, and promised to it when it comes.'}
            {need.boughtFor.kind === 'request' &&
              need.gauge.free > 0 &&
              ` ${format.quantity(need.gauge.free)} ${need.gauge.free === 1_000_000 ? 'is' : 'are'} free here: approving the request would send from those.`}
          </p>
        )}
        {need.buyerNote && <p className="note mb-4">{need.buyerNote}</p>}
        <Why
          need={need}
          sum={sum}
          worth={(q) => {
            const net = price && netOf(need, q, price, currency);
            return net === null ? null : format.money(net, currency);
          }}
        />
        {need.sentFrom && (
          <p className="second mt-2">
            Sent from {need.sentFrom.location}: {format.quantity(need.sentFrom.free)} free there.
          </p>
        )}
        {need.byHand && (
          <p className="second mt-2">
            {format.quantity(need.byHand.quantity)} {plural(need.unit, need.byHand.quantity)} asked for by{' '}
            {need.byHand.who}
            {need.byHand.note && `: ${need.byHand.note}`}
          </p>
        )}
        {need.sourceRule && need.sourceRule.kind !== 'only' && need.sourceRule.kind !== 'blocked' && (
          <p className="second mt-2">Supplier chosen by {ruleWords(need.sourceRule)}.</p>
        )}
        <Mend need={need} today={today} onMended={onMended} />
        {need.slackDays !== null && need.slackDays < 0 && need.runOut && need.arrives && (
          <p className="mt-2 text-attention">
            Stock runs out {format.date(need.runOut)}, this would be here {format.date(need.arrives)}.
          </p>
        )}
        <p className="second mt-2">
          Short since {format.date(need.firstSeen.slice(0, 10))} ·{' '}
          <Link prefetch={false} className="link" href={`/needs/decisions?show=all&item=${need.itemId}`}>
            earlier decisions
          </Link>
        </p>
      </div>
      {need.open && need.boughtFor?.kind !== 'request' && (
        <Ways needId={need.id} fingerprint={need.fingerprint} {...ways} />
      )}
      <CourseOfStock itemId={need.itemId} locationId={need.locationId} unit={need.unit} />
      <div>
        <h3 className="head">
          Last bought <span className="font-normal text-muted">each</span>
        </h3>
        {bought === null && <p className="second">Loading</p>}
        {bought === 'failed' && <p className="second">Could not be read just now.</p>}
        {bought !== null && bought !== 'failed' && <BoughtLines bought={bought} format={format} />}
      </div>
    </div>
  );
}

/** The sum behind what is suggested; null while it is read. */
export function Why({
  need,
  sum,
  worth,
}: {
  need: NeedView;
  sum: { readonly reckoning: Reckoning | null } | null | 'failed';
  /** What so much is worth at the price shown, as text; null without one. */
  worth: (quantity: number) => string | null;
}) {
  const format = useFormat();
  const reckoning = sum === null || sum === 'failed' ? null : sum.reckoning;
  return (
    <>
      <h3 className="head">Why {reckoning ? format.quantity(neededOf(reckoning)) : 'this'}</h3>
      {sum === null && <p className="second">Loading</p>}
      {sum === 'failed' && <p className="second">Could not be read just now.</p>}
      {reckoning && (
        <ReckoningSum
          sum={reckoning}
          format={format}
          unit={need.unit}
          packName={need.packName}
          sent={need.sentFrom !== null}
          worth={worth}
          origins={{
            refill_to_max: (
              <Link prefetch={false} className="link" href={`/policies?q=${encodeURIComponent(need.itemNumber)}`}>
                policy, {need.location}
              </Link>
            ),
            refill_to_min: (
              <Link prefetch={false} className="link" href={`/policies?q=${encodeURIComponent(need.itemNumber)}`}>
                policy, {need.location}
              </Link>
            ),
            on_hand: (
              <Link prefetch={false} className="link" href={`/items/${need.itemId}#movements`}>
                {need.location}
              </Link>
            ),
            on_the_way: (
              <Link prefetch={false} className="link" href={`/items/${need.itemId}#on-order`}>
                approved and sent orders
              </Link>
            ),
            in_trays: (
              <Link prefetch={false} className="link" href="/trays">
                decided, not yet ordered
              </Link>
            ),
          }}
        />
      )}
      {sum !== null && sum !== 'failed' && !reckoning && (
        <p className="second">
          {need.boughtFor ? 'Nobody asks for it any more.' : 'No policy that refills is in force here.'}
        </p>
      )}
    </>
  );
}
