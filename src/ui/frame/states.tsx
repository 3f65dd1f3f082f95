import type { ReactNode } from 'react';

/** A view without content: what is the matter and what to do about it. */
export function Notice({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="mx-auto max-w-md px-6 py-16">
      <h1 className="mb-1 text-[17px] font-semibold">{title}</h1>
      <div className="text-muted">{children}</div>
    </div>
  );
}

export const DatabaseDown = () => (
  <Notice title="The database can’t be reached">
    Nothing is lost: what was saved is safe. Vorrat goes on as soon as the database answers; reload this page in a
    moment.
  </Notice>
);

/** List left, reckoning right. On a phone the panel follows the list. `fixed` is for a grid, which scrolls by itself. */
export function ListAndPanel({
  children,
  panel,
  label,
  fixed = false,
}: {
  children: ReactNode;
  panel: ReactNode;
  label: string;
  fixed?: boolean;
}) {
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto max-lg:scroll-pt-[90px]">
      <section
        className={`relative min-w-0 flex-1 bg-sheet ${
          fixed
            ? 'flex min-h-0 flex-col max-lg:h-[70vh] max-lg:flex-none'
            : 'scroll-pt-[90px] scroll-pb-16 overflow-y-auto max-lg:overflow-visible'
        }`}
      >
        {children}
      </section>
      <aside
        aria-label={label}
        tabIndex={-1}
        className="w-[380px] shrink-0 overflow-y-auto border-l border-rule-strong bg-paper px-[18px] py-4 max-lg:w-full max-lg:border-l-0 max-lg:border-t"
      >
        {panel}
      </aside>
    </div>
  );
}
