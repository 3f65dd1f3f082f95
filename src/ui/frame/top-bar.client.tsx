'use client';

import { ChevronDown } from 'lucide-react';
import Link from 'next/link';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { Right } from '@/core/people';
import { signOut } from '../command/send';
import { useSettled } from '../command/use-settled.client';
import { Mark } from '../marks/mark';
import { useRights } from '../may-context.client';
import { Find } from './find.client';

export type Frame = {
  readonly counts: {
    readonly needs: number;
    readonly trays: number;
    readonly orders: number;
    readonly arrivals: number;
    readonly promises: number;
    /** Alerts of the person that were not seen. */
    readonly alerts: number;
  };
  readonly locations: readonly { readonly id: number; readonly code: string; readonly name: string }[];
};

/** What built-in roles are called; others have their own name. */
const roleWords: Readonly<Record<string, string>> = {
  owner: 'owner',
  buyer: 'buyer',
  shop: 'receiving',
  bookkeeper: 'bookkeeper',
  read_only: 'read-only',
};

/** What waits at each stop: as the page was read, and read again once the commands of this page are through. */
function useCounts(read: Frame['counts']): Frame['counts'] {
  const [counts, setCounts] = useState(read);
  useEffect(() => setCounts(read), [read]);
  useSettled(async () => {
    const response = await fetch('/api/reads/frame').catch(() => null);
    if (response?.ok) setCounts(((await response.json()) as { value: Frame }).value.counts);
  });
  return counts;
}

/** The ruler of work: a tick at each stop and what is waiting there; then the shelf, the place and the person. */
export function TopBar({ frame, person }: { frame: Frame; person: { name: string; initials: string; role: string } }) {
  const path = usePathname();
  const params = useSearchParams();
  const router = useRouter();
  const at = params.get('at') ?? '';
  const kept = at ? `?at=${encodeURIComponent(at)}` : '';
  const rights = useRights();
  const mine = <S extends { readonly needs: Right }>(stops: readonly S[]) =>
    stops.filter((s) => rights.includes(s.needs));
  const counts = useCounts(frame.counts);
  const ruler = mine([
    { href: '/today', name: 'Today', count: null, needs: 'stock.read' },
    { href: '/needs', name: 'Needs', count: counts.needs, needs: 'needs.read' },
    { href: '/trays', name: 'Trays', count: counts.trays, needs: 'needs.read' },
    { href: '/orders', name: 'Orders', count: counts.orders, needs: 'orders.read' },
    { href: '/arrivals', name: 'Arrivals', count: counts.arrivals, needs: 'goods.receive' },
    { href: '/promises', name: 'Promises', count: counts.promises, needs: 'promises.read' },
  ]);
  const shelf = mine([
    { href: '/items', name: 'Items', needs: 'stock.read' },
    { href: '/stock', name: 'Stock', needs: 'stock.read' },
    { href: '/suppliers', name: 'Suppliers', needs: 'orders.read' },
    { href: '/policies', name: 'Policies', needs: 'needs.read' },
    { href: '/sheets', name: 'Spreadsheets', needs: 'catalogue.edit' },
    { href: '/alerts', name: 'Alerts', needs: 'stock.read' },
    { href: '/setup', name: 'Setup', needs: 'stock.read' },
    { href: '/mailbox', name: 'Mail', needs: 'orders.read' },
    { href: '/work', name: 'In the background', needs: 'needs.read' },
  ]);
  const onShelf = shelf.some((s) => path.startsWith(s.href));

  const chooseTheme = (theme: string) => {
    // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store API is missing on plain http.
    document.cookie = `theme=${theme}; path=/; max-age=31536000; samesite=lax`;
    if (theme === 'system') document.documentElement.removeAttribute('data-theme');
    else document.documentElement.dataset.theme = theme;
  };

  const leave = async () => {
    await signOut();
    window.location.assign('/sign-in');
  };
  const doings = [
    ...[...ruler, ...shelf].map((s) => ({ name: s.name, href: s.href + kept })),
    { name: 'Your account', href: '/account' },
    { name: 'Light', act: () => chooseTheme('paper') },
    { name: 'Dark', act: () => chooseTheme('ink') },
    { name: 'Colours as the system', act: () => chooseTheme('system') },
    { name: 'Sign out', act: leave },
  ];

  return (
    <header className="screen-only flex h-[50px] shrink-0 items-stretch gap-3 overflow-x-clip border-b border-ink bg-paper px-4 max-md:h-auto max-md:flex-wrap max-md:gap-y-0">
      <Link href="/" className="flex items-center gap-2 pr-1 text-[17px] font-semibold max-md:h-10">
        <Mark /> Vorrat
      </Link>
      <nav
        aria-label="Work"
        className="flex items-stretch max-md:order-last max-md:h-10 max-md:w-full max-sm:overflow-x-auto"
      >
        {ruler.map((s) => {
          const here = path.startsWith(s.href);
          return (
            <Link
              key={s.href}
              href={s.href + kept}
              aria-current={here ? 'page' : undefined}
              className={`relative flex items-center gap-1.5 px-[15px] text-[14px] max-md:px-2.5 max-sm:gap-1 max-sm:px-1.5 max-sm:text-[13px] ${here ? 'font-semibold' : 'text-muted hover:text-ink'} ${s.count === null && !here ? 'max-sm:hidden' : ''}`}
            >
              {s.name}
              {s.count !== null && (
                <span className={`text-xs font-semibold ${here ? 'text-action' : 'text-ink'}`}>{s.count}</span>
              )}
              <span className="absolute bottom-0 left-0 h-2 w-px bg-ink" aria-hidden="true" />
              {here && <span className="absolute inset-x-0 bottom-0 h-[4px] bg-action" aria-hidden="true" />}
            </Link>
          );
        })}
        <span className="relative w-px" aria-hidden="true">
          <span className="absolute bottom-0 h-2 w-px bg-ink" />
        </span>
      </nav>
      <div className="ml-auto flex items-center gap-3">
        {counts.alerts > 0 && (
          <Link className="chip font-semibold text-attention" href="/alerts" prefetch={false}>
            {counts.alerts} <span className="max-lg:sr-only">{counts.alerts === 1 ? 'alert' : 'alerts'}</span>
          </Link>
        )}
        {shelf.length > 0 && (
          <Menu label="Shelf" strong={onShelf}>
            {shelf.map((s) => (
              <li key={s.href}>
                <Link href={s.href + kept} aria-current={path.startsWith(s.href) ? 'page' : undefined}>
                  {s.name}
                </Link>
              </li>
            ))}
          </Menu>
        )}
        <Find doings={doings} />
        <label className="relative flex items-center">
          <span className="sr-only">Location</span>
          <select
            className="max-w-40 appearance-none bg-transparent pr-4 text-[13.5px] [field-sizing:content]"
            value={at}
            onChange={(e) => {
              const next = new URLSearchParams(params);
              if (e.target.value) next.set('at', e.target.value);
              else next.delete('at');
              router.push(`${path}${next.size > 0 ? `?${next}` : ''}`);
            }}
          >
            {frame.locations.length !== 1 && <option value="">All locations</option>}
            {frame.locations.map((l) => (
              <option key={l.id} value={l.code}>
                {l.name}
              </option>
            ))}
          </select>
          <ChevronDown className="pointer-events-none absolute right-0 size-3.5" aria-hidden="true" />
        </label>
        <Menu
          label={
            <span className="grid size-[26px] place-items-center rounded-full bg-ink text-[10.5px] font-semibold text-sheet">
              {person.initials}
            </span>
          }
          name={`${person.name}, ${roleWords[person.role] ?? person.role}`}
        >
          <li className="px-3 py-1.5">
            <span className="block font-semibold">{person.name}</span>
            <span className="second">{roleWords[person.role] ?? person.role}</span>
          </li>
          <li>
            <Link href="/account">Your account</Link>
          </li>
          {(['paper', 'ink', 'system'] as const).map((t) => (
            <li key={t}>
              <button type="button" onClick={() => chooseTheme(t)}>
                {{ paper: 'Light', ink: 'Dark', system: 'As the system' }[t]}
              </button>
            </li>
          ))}
          <li>
            <button type="button" onClick={leave}>
              Sign out
            </button>
          </li>
        </Menu>
      </div>
    </header>
  );
}

function Menu({
  label,
  name,
  strong = false,
  children,
}: {
  label: React.ReactNode;
  name?: string;
  strong?: boolean;
  children: React.ReactNode;
}) {
  const details = useRef<HTMLDetailsElement>(null);
  const path = usePathname();
  // biome-ignore lint/correctness/useExhaustiveDependencies: a menu closes when the page changes.
  useEffect(() => details.current?.removeAttribute('open'), [path]);
  return (
    <details
      ref={details}
      className="relative"
      onBlur={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget)) e.currentTarget.removeAttribute('open');
      }}
      onKeyDown={(e) => {
        if (e.key !== 'Escape') return;
        details.current?.removeAttribute('open');
        details.current?.querySelector('summary')?.focus();
      }}
    >
      <summary
        aria-label={name}
        className={`flex cursor-pointer list-none items-center gap-0.5 ${strong ? 'font-semibold' : ''}`}
      >
        {label}
        {!name && <ChevronDown className="size-3.5" aria-hidden="true" />}
      </summary>
      <ul className="menu absolute right-0 z-20 mt-2 w-44 rounded-sm border border-rule-strong bg-sheet p-1 text-[13.5px]">
        {children}
      </ul>
    </details>
  );
}
