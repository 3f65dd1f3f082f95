'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';

/** The pages of Setup, as a column beside them; on a phone as a line above. */
export function SetupNav({ people, changes }: { people: boolean; changes: boolean }) {
  const path = usePathname();
  const pages = [
    ['/setup', 'Company', true],
    ['/setup/locations', 'Locations', true],
    ['/setup/calendar', 'Holidays', true],
    ['/setup/categories', 'Categories', true],
    ['/setup/planning', 'Planning', true],
    ['/setup/limits', 'Limits', true],
    ['/setup/reasons', 'Reasons', true],
    ['/setup/patterns', 'Pack patterns', true],
    ['/setup/shipping', 'Shipping ways', true],
    ['/setup/charges', 'Charges and duty', true],
    ['/setup/papers', 'Orders on paper', true],
    ['/setup/rates', 'Exchange rates', true],
    ['/setup/budgets', 'Budgets', true],
    ['/setup/jobs', 'Jobs', true],
    ['/setup/people', 'People', people],
    ['/setup/changes', 'Changes', changes],
    ['/setup/books', 'Books', true],
  ] as const;
  return (
    <nav
      aria-label="Setup"
      className="w-[168px] shrink-0 overflow-y-auto border-r border-rule-strong bg-paper py-3 max-lg:w-full max-lg:border-r-0 max-lg:border-b max-lg:py-1"
    >
      <ul className="max-lg:flex max-lg:flex-wrap">
        {pages
          .filter(([, , shown]) => shown)
          .map(([href, name]) => {
            const here = path === href;
            return (
              <li key={href}>
                <Link
                  href={href}
                  aria-current={here ? 'page' : undefined}
                  className={`block px-4 py-1.5 ${here ? 'bg-highlight font-semibold shadow-[inset_3px_0_0_var(--color-primary)]' : 'text-muted hover:text-ink'}`}
                >
                  {name}
                </Link>
              </li>
            );
          })}
      </ul>
    </nav>
  );
}
