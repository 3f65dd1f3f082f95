'use client';

import { useState } from 'react';
import type { BooksView } from '@/services/cost/readBooks';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { ListBar } from '../frame/list';
import { ListAndPanel } from '../frame/states';

/** To which day the books are closed, and who moved that day. */
export function BooksPage({ books }: { books: BooksView }) {
  const format = useFormat();
  const was = books.closedTo ?? '';
  const [to, setTo] = useState(was);
  const { busy, sentence, run } = useCommand();
  const day = (date: string) => (date === '' ? 'open' : format.dateWithYear(date));
  return (
    <ListAndPanel
      label="What closing does"
      panel={
        <section>
          <h2 className="head">What closing does</h2>
          <p className="mb-2">
            Nothing is posted on or before a closed day: no receipt, no sale, no count. What is booked in later for such
            a day is refused, and says so.
          </p>
          <p className="mb-2">
            A receipt dated back to an open day rewrites nothing either: what the sales since should have cost is put
            right by one movement dated today.
          </p>
          <p>Owner and bookkeeper may move the day, also back.</p>
        </section>
      }
    >
      <ListBar
        title="Books"
        about={books.closedTo ? `closed to ${format.dateWithYear(books.closedTo)}` : 'no day is closed'}
      />
      <form
        className="flex flex-wrap items-end gap-3 px-4 py-4"
        onSubmit={(e) => {
          e.preventDefault();
          run('close-books', { to, was });
        }}
      >
        <label className="grid gap-1">
          <span className="second">Closed to and with</span>
          <input
            type="date"
            className="entry w-40"
            value={to}
            max={books.today}
            disabled={!books.mayClose}
            onChange={(e) => setTo(e.target.value)}
          />
        </label>
        <button
          type="submit"
          className="btn btn-primary"
          disabled={busy || !books.mayClose || to === was}
          title={books.mayClose ? undefined : 'Owner and bookkeeper may do this'}
        >
          {to === '' ? 'Open all days' : was !== '' && to < was ? 'Open the days after it' : 'Close'}
        </button>
        {was !== '' && books.mayClose && to !== '' && (
          <button type="button" className="btn btn-outline" disabled={busy} onClick={() => setTo('')}>
            No closed day
          </button>
        )}
        {!books.mayClose && <p className="second pb-2">Owner and bookkeeper move this day.</p>}
        {sentence && (
          <p className="fault w-full" role="alert">
            {sentence}
          </p>
        )}
      </form>
      {books.changes.length > 0 && (
        <table className="sheet">
          <thead>
            <tr>
              <th>When</th>
              <th>Who</th>
              <th>Closed to</th>
              <th>Before</th>
            </tr>
          </thead>
          <tbody>
            {books.changes.map((c) => (
              <tr key={c.at} className="one">
                <td>{format.date(c.at.slice(0, 10))}</td>
                <td>{c.who}</td>
                <td className="font-semibold">{day(c.after)}</td>
                <td className="second">{day(c.before)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </ListAndPanel>
  );
}
