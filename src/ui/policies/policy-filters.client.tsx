'use client';

import { useRouter } from 'next/navigation';
import { kindWords, policyKinds } from '@/core/policy';
import type { PolicySort } from '@/services/planning/readPolicies';
import { LiveSearch } from '../frame/live-search.client';

export type PolicyQuery = {
  readonly q: string;
  readonly at: string;
  readonly sort: PolicySort;
  readonly category: string;
  readonly supplier: string;
  readonly maker: string;
  readonly show: string;
  readonly cls: string;
  readonly buyer: string;
};

/** The address of the sheet with something else asked for; what is empty or usual is left out. */
export function policiesHref(query: PolicyQuery, change: Partial<PolicyQuery> = {}): string {
  const { sort, ...rest } = { ...query, ...change };
  const given = Object.entries({ ...rest, sort: sort === 'name' ? '' : sort }).filter(([, v]) => v !== '');
  return given.length === 0 ? '/policies' : `/policies?${new URLSearchParams(given)}`;
}

const shows = [
  ['', 'All'],
  ['below', 'Below minimum'],
  ['above', 'Above maximum'],
  ['need', 'With a need'],
  ['without', 'Without a policy'],
] as const;

/** What of the sheet is shown. */
export function PolicyFilters(props: {
  query: PolicyQuery;
  categories: readonly string[];
  suppliers: readonly { readonly code: string; readonly name: string }[];
  makers: readonly string[];
  /** The person at the screen first. */
  buyers: readonly { readonly id: number; readonly name: string }[];
}) {
  const { query } = props;
  const router = useRouter();
  const go = (change: Partial<PolicyQuery>) => router.push(policiesHref(query, change));
  const pick = (
    label: string,
    key: 'category' | 'supplier' | 'maker' | 'buyer',
    all: string,
    options: readonly (readonly [string, string])[],
  ) =>
    options.length === 0 ? null : (
      <select
        className="entry max-w-36"
        aria-label={label}
        value={query[key]}
        onChange={(e) => go({ [key]: e.target.value })}
      >
        <option value="">{all}</option>
        {options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    );
  return (
    <>
      <select
        className="entry"
        aria-label="Which lines"
        value={query.show}
        onChange={(e) => go({ show: e.target.value })}
      >
        {shows.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
        <optgroup label="Policy">
          {policyKinds.map((k) => (
            <option key={k} value={k}>
              {kindWords[k]}
            </option>
          ))}
        </optgroup>
      </select>
      {pick(
        'Category',
        'category',
        'All categories',
        props.categories.map((c) => [c, c] as const),
      )}
      {pick(
        'Supplier',
        'supplier',
        'All suppliers',
        props.suppliers.map((s) => [s.code, s.name] as const),
      )}
      {pick(
        'Maker',
        'maker',
        'All makers',
        props.makers.map((m) => [m, m] as const),
      )}
      <select className="entry" aria-label="Class" value={query.cls} onChange={(e) => go({ cls: e.target.value })}>
        <option value="">All classes</option>
        {['A', 'B', 'C', 'X', 'Y', 'Z'].map((c) => (
          <option key={c} value={c}>
            class {c}
          </option>
        ))}
      </select>
      {pick(
        'Buyer',
        'buyer',
        'All buyers',
        props.buyers.map((b, i) => [String(b.id), i === 0 ? 'Mine' : b.name] as const),
      )}
      <LiveSearch
        value={query.q}
        placeholder="name, number, barcode"
        label="Search items"
        hrefOf={(q) => policiesHref(query, { q })}
      />
    </>
  );
}
