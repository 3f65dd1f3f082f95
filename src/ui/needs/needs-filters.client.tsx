'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ReactNode, useEffect, useRef } from 'react';
import { needCauses } from '@/core/netting';
import { LiveSearch } from '../frame/live-search.client';
import { causeWords } from '../marks/cause';
import { isNarrowed, type NeedQuery, needsHref, orderWords, showWords } from './query';

const chosen = <K extends string>(words: Readonly<Record<K, string>>) =>
  Object.entries(words).map(([key, name]) => (
    <option key={key} value={key}>
      {name as string}
    </option>
  ));

/** What the list of needs is narrowed to and how it is ordered, all of it in the address. */
export function NeedsFilters(props: { query: NeedQuery; children?: ReactNode }) {
  const { query } = props;
  const router = useRouter();
  // What was asked for last: another choice that is made before the page has come keeps it.
  const asked = useRef(query);
  useEffect(() => {
    asked.current = query;
  }, [query]);
  const hrefOf = (change: Partial<NeedQuery>) => {
    asked.current = { ...asked.current, ...change };
    return needsHref(asked.current);
  };
  const go = (change: Partial<NeedQuery>) => router.push(hrefOf(change));
  return (
    <div className="bar gap-2">
      <LiveSearch
        value={query.q}
        placeholder="any column"
        label="Search needs"
        width="w-36"
        hrefOf={(q) => hrefOf({ q })}
      />
      <select
        className="entry max-w-36"
        aria-label="Which needs"
        value={query.show}
        onChange={(e) => go({ show: e.target.value as NeedQuery['show'] })}
      >
        {chosen(showWords)}
      </select>
      <select
        className="entry max-w-32"
        aria-label="Which cause"
        value={query.cause}
        onChange={(e) => go({ cause: e.target.value as NeedQuery['cause'] })}
      >
        <option value="">any cause</option>
        {needCauses.map((c) => (
          <option key={c} value={c}>
            {causeWords[c]}
          </option>
        ))}
      </select>
      <select
        className="entry"
        aria-label="In which order"
        value={query.by}
        onChange={(e) => go({ by: e.target.value as NeedQuery['by'] })}
      >
        {chosen(orderWords)}
      </select>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="accent-action"
          checked={query.mine}
          onChange={(e) => go({ mine: e.target.checked })}
        />
        mine
      </label>
      {isNarrowed(query) && (
        <Link className="link second" href={needsHref({ ...query, q: '', show: 'open', cause: '', mine: false })}>
          show all
        </Link>
      )}
      <div className="ml-auto flex items-center gap-2">{props.children}</div>
    </div>
  );
}
