import type { ReactNode } from 'react';

/** A list that takes the whole page; rows moved to by keyboard don't end up under its heads. */
export const WholeList = ({ children, read }: { children: ReactNode; read?: string }) => (
  <section
    className="min-h-0 flex-1 scroll-pt-[90px] overflow-y-auto bg-sheet"
    // Where nothing in it can be focused it is scrolled by itself.
    {...(read === undefined ? {} : { tabIndex: 0, role: 'region', 'aria-label': read })}
  >
    {children}
  </section>
);

/** A grid that takes the whole page and scrolls by itself; on a phone it keeps most of the height. */
export const WholeGrid = ({ children }: { children: ReactNode }) => (
  <section className="flex min-h-0 flex-1 flex-col bg-sheet max-lg:h-[calc(100dvh-82px)] max-lg:flex-none">
    {children}
  </section>
);

/** The bar over a list: what it holds, a word about it, what can be done with it. */
export const ListBar = ({ title, about, children }: { title: ReactNode; about?: ReactNode; children?: ReactNode }) => (
  <div className="bar sticky top-0 z-2">
    <h1 className="text-[15px] font-semibold">{title}</h1>
    {about && <p className="text-muted">{about}</p>}
    {children}
  </div>
);
