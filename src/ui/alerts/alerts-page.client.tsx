'use client';

import Link from 'next/link';
import { alertMatters } from '@/core/people';
import { fromDecimal } from '@/core/quantity';
import type { AlertRow } from '@/data/repositories/alerts';
import { useCommand } from '../command/use-command.client';
import { countOf, type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';
import { alertWords } from './words';

/** What the person wanted to be told and is so now, by matter; each leads to where it is dealt with. */
export function AlertsPage({ alerts }: { alerts: readonly AlertRow[] }) {
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const fresh = alerts.filter((a) => Number(a.seen) === 0);
  const see = (some: readonly AlertRow[]) => run('see-alerts', { ids: some.slice(0, 1000).map((a) => a.id) });
  return (
    <WholeList>
      <ListBar title={countOf(alerts.length, 'alert')} about={fresh.length === 0 ? 'all seen' : `${fresh.length} new`}>
        <Link className="link ml-auto" href="/account" prefetch={false}>
          What I want to hear of
        </Link>
        <button
          type="button"
          className="btn btn-outline"
          disabled={busy || fresh.length === 0}
          title={fresh.length === 0 ? 'All are seen' : undefined}
          onClick={() => see(fresh)}
        >
          All are seen
        </button>
      </ListBar>
      {sentence && (
        <p className="fault px-4 py-2" role="alert">
          {sentence}
        </p>
      )}
      {alerts.length === 0 && (
        <Notice title="Nothing to tell">
          <Link className="link" href="/account">
            Choose what to hear of, at once or daily, here and by mail
          </Link>
        </Notice>
      )}
      {alertMatters.map((matter) => {
        const own = alerts.filter((a) => a.matter === matter);
        if (own.length === 0) return null;
        return (
          <section key={matter}>
            <h2 className="px-4 pt-5 pb-1 text-[15px] font-semibold">
              {alertWords[matter].head} <span className="second font-normal">{format.quantity(own.length * 1e6)}</span>
            </h2>
            <ul>
              {own.map((a) => (
                <li key={a.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule px-4 py-2">
                  <span className={`min-w-72 flex-1 ${Number(a.seen) === 0 ? 'font-semibold' : ''}`}>
                    <Link className="hover:underline" href={hrefOf(a)} prefetch={false}>
                      {a.itemName ?? a.about}
                    </Link>
                    {a.itemNumber && <span className="code font-normal"> {a.itemNumber}</span>}
                  </span>
                  <span className="w-40">{a.location}</span>
                  <span className="w-72 max-sm:w-full">{wordsOf(a, format)}</span>
                  <span className="w-24 text-right">
                    {Number(a.seen) === 0 && (
                      <button
                        type="button"
                        className="chip"
                        disabled={busy}
                        aria-label={`${a.itemName ?? a.about} is seen`}
                        onClick={() => see([a])}
                      >
                        seen
                      </button>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </WholeList>
  );
}

function wordsOf(a: AlertRow, format: Format): string {
  const q = (text: string | null) => fromDecimal(text ?? '0');
  const onHand = `${format.quantity(q(a.onHand))} ${plural(a.unit ?? '', q(a.onHand))} on hand`;
  switch (a.matter) {
    case 'below_zero':
      return onHand;
    case 'below_min':
      return `${onHand}, minimum ${format.quantity(q(a.level))}`;
    case 'above_max':
      return `${format.quantity(q(a.excess))} above the maximum of ${format.quantity(q(a.max))}`;
    case 'transfer_asked':
      return 'waits for approval';
    case 'count_due':
      return 'due';
  }
}

function hrefOf(a: AlertRow): string {
  const number = encodeURIComponent(a.itemNumber ?? '');
  switch (a.matter) {
    case 'below_zero':
      return `/stock?show=negative&q=${number}`;
    case 'below_min':
      return `/items/${a.itemId}`;
    case 'above_max':
      return `/policies?q=${number}`;
    case 'transfer_asked':
      return `/stock/transfers/${a.refId}`;
    case 'count_due':
      return '/stock/counts';
  }
}
