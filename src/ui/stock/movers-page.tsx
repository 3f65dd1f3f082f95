import Form from 'next/form';
import Link from 'next/link';
import type { MoverLine, MoversAsked, MoversView } from '@/services/stock/readMovers';
import { type Format, lastsWords, plural } from '../format';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';

const orders = {
  sold: 'what sells most',
  margin: 'what earns most',
  slow: 'what turns slowest',
  idle: 'what has not sold',
} as const;
const spans = { 30: '30 days', 91: '13 weeks', 182: 'half a year', 365: 'a year' } as const;

/** What sells fast, slowly, or not at all, with what it earns and what lies there; each line leads to its policy. */
export function MoversPage(props: {
  view: MoversView;
  asked: MoversAsked;
  at: string;
  categories: readonly string[];
  format: Format;
}) {
  const { view, asked, at, format } = props;
  const { currency } = view;
  const query = new URLSearchParams(
    Object.entries({ order: asked.order, days: String(asked.days), category: asked.category, at }).filter(
      ([, v]) => v !== '',
    ),
  );
  const money = (minor: number | null) => (minor === null ? '–' : format.money(minor, currency));
  const idle = asked.order === 'idle';
  return (
    <WholeList>
      <ListBar
        title={`${format.quantity(view.count * 1e6)} ${view.count === 1 ? 'item' : 'items'} by place`}
        about={
          idle
            ? `nothing sold since ${format.date(view.since)}, ${money(view.value)} lie there`
            : `sold for ${money(view.costOfSales)} at cost, earned ${money(view.margin)}; ${money(view.value)} lie there`
        }
      >
        <span className="ml-auto" />
        <ExportLinks of="Movers" path={`/api/exports/movers?${query}`} />
      </ListBar>
      <Form action="/stock/movers" className="flex flex-wrap items-center gap-2 border-b border-rule px-4 py-2">
        {at && <input type="hidden" name="at" value={at} />}
        <select name="order" className="entry" aria-label="Which" defaultValue={asked.order}>
          {Object.entries(orders).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        <select name="days" className="entry" aria-label="Over" defaultValue={asked.days}>
          {Object.entries(spans).map(([key, name]) => (
            <option key={key} value={key}>
              over {name}
            </option>
          ))}
        </select>
        <select name="category" className="entry max-w-44" aria-label="Category" defaultValue={asked.category}>
          <option value="">All categories</option>
          {props.categories.map((c) => (
            <option key={c}>{c}</option>
          ))}
        </select>
        <button type="submit" className="btn btn-outline">
          Show
        </button>
        <span className="second">Cost and margin at today’s figures, without tax.</span>
      </Form>
      {view.lines.length === 0 ? (
        <Notice title={idle ? 'Everything that lies there has sold' : 'Nothing was sold like this'}>
          <Link className="link" href="/stock/movers">
            Show what sells most
          </Link>
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>Item</th>
              <th>At</th>
              <th className="max-md:hidden">Class</th>
              {!idle && <th className="figure">Sold</th>}
              {idle && <th className="figure">Last sold</th>}
              {!idle && <th className="figure max-sm:hidden">At cost</th>}
              {!idle && <th className="figure max-sm:hidden">Margin</th>}
              <th className="figure">Lies there</th>
              <th className="figure max-sm:hidden">Worth</th>
              {!idle && <th className="figure max-md:hidden">Turns a year</th>}
              <th className="max-sm:hidden">Policy</th>
            </tr>
          </thead>
          <tbody>
            {view.lines.map((l) => (
              <Row key={`${l.itemId} ${l.location}`} line={l} idle={idle} money={money} format={format} />
            ))}
          </tbody>
        </table>
      )}
      {view.count > view.lines.length && (
        <p className="second px-4 py-4">
          The first {view.lines.length} of {format.quantity(view.count * 1e6)}; a file has them all.
        </p>
      )}
    </WholeList>
  );
}

function Row(props: { line: MoverLine; idle: boolean; money: (minor: number | null) => string; format: Format }) {
  const { line: l, idle, money, format } = props;
  const lasts = lastsWords(l.coverDays);
  return (
    <tr className="two">
      <td>
        <Link className="name block" href={`/items/${l.itemId}`} prefetch={false}>
          {l.name}
        </Link>
        <span className="code">{l.number}</span>
      </td>
      <td>{l.location}</td>
      <td className="code max-md:hidden">{l.abc === null ? '–' : `${l.abc}${l.xyz ?? ''}`}</td>
      {!idle && (
        <td className="figure">
          {format.quantity(l.sold)} <span className="second">{plural(l.unit, l.sold)}</span>
        </td>
      )}
      {idle && <td className="figure">{l.lastSold ? format.dateWithYear(l.lastSold) : 'never'}</td>}
      {!idle && <td className="figure max-sm:hidden">{money(l.costOfSales)}</td>}
      {!idle && <td className={`figure max-sm:hidden ${(l.margin ?? 0) < 0 ? 'text-stop' : ''}`}>{money(l.margin)}</td>}
      <td className={`figure ${l.onHand < 0 ? 'text-stop' : ''}`}>
        {format.quantity(l.onHand)}
        {lasts && !idle && <span className="second block">lasts {lasts}</span>}
      </td>
      <td className="figure max-sm:hidden">{money(l.value)}</td>
      {!idle && (
        <td className="figure max-md:hidden">
          {l.turns === null ? '–' : format.quantity(Math.round(l.turns * 10) * 100_000)}
        </td>
      )}
      <td className="max-sm:hidden">
        <Link className="link" prefetch={false} href={`/policies?q=${encodeURIComponent(l.number)}`}>
          policy
        </Link>
      </td>
    </tr>
  );
}
