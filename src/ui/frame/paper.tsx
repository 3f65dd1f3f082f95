import Link from 'next/link';
import type { ReactNode } from 'react';
import { PrintButton } from './print-button.client';

/** A document as it is printed: who it is from, its number and day; above it, on the screen only, the way back. */
export function Paper(props: {
  title: string;
  /** '' where the document says it itself. */
  day: string;
  company: string;
  back: { readonly href: string; readonly words: string };
  children: ReactNode;
}) {
  return (
    <main className="min-h-screen bg-paper print:bg-white">
      <div className="screen-only bar">
        <Link className="link" href={props.back.href}>
          {props.back.words}
        </Link>
        <span className="ml-auto">
          <PrintButton />
        </span>
      </div>
      <article className="mx-auto my-6 max-w-[190mm] bg-white p-[14mm] text-[13px] text-black max-sm:my-0 max-sm:p-3 print:m-0 print:p-0">
        {props.title !== '' && (
          <header className="mb-8 flex justify-between gap-8">
            <div>
              <h1 className="text-xl font-semibold">{props.title}</h1>
              {props.day && <p>{props.day}</p>}
            </div>
            {props.company && <p className="text-right font-semibold">{props.company}</p>}
          </header>
        )}
        {props.children}
      </article>
    </main>
  );
}

/** The parties of a document, beside each other. */
export const Parties = ({ children }: { children: ReactNode }) => (
  <div className="mb-7 grid grid-cols-3 gap-6 max-sm:grid-cols-1 max-sm:gap-3 print:grid-cols-3">{children}</div>
);
export const Party = ({ title, children }: { title: string; children: ReactNode }) => (
  <div>
    <h2 className="mb-1 border-b border-black pb-0.5 text-xs font-semibold">{title}</h2>
    {children}
  </div>
);

/** Lines of an address. */
export const Address = ({ text }: { text: string }) =>
  text.split('\n').map((line) => (
    <span key={line} className="block">
      {line}
    </span>
  ));
