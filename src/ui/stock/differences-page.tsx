import Form from 'next/form';
import Link from 'next/link';
import type { DifferenceLine, DifferencesAsked, DifferencesView } from '@/services/stock/readCountDifferences';
import { type Format, plural } from '../format';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';

const groups = { item: 'Item', place: 'Place', reason: 'Reason', month: 'Month' } as const;

/** What counts found over time, in quantity and money; use that nobody recorded stands apart. */
export function DifferencesPage(props: { view: DifferencesView; asked: DifferencesAsked; at: string; format: Format }) {
  const { view, asked, at, format } = props;
  const query = new URLSearchParams(
    Object.entries({ by: asked.by, from: asked.from, to: asked.to, at }).filter(([, v]) => v !== ''),
  );
  const { sum, currency } = view;
  const money = (minor: number) => (minor === 0 ? '–' : format.money(minor, currency));
  const nets = (r: Pick<DifferenceLine, 'moreValue' | 'lessValue'>) => r.moreValue - r.lessValue;
  return (
    <WholeList>
      <ListBar title="What counts found" about={asked.by === 'month' ? 'by month' : `by ${asked.by}, the most first`}>
        <span className="ml-auto" />
        <ExportLinks of="Differences" path={`/api/exports/count-differences?${query}`} />
      </ListBar>
      <Form
        action="/stock/counts/differences"
        className="flex flex-wrap items-center gap-2 border-b border-rule px-4 py-2"
      >
        {at && <input type="hidden" name="at" value={at} />}
        <select name="by" className="entry" aria-label="By" defaultValue={asked.by}>
          {Object.entries(groups).map(([key, name]) => (
            <option key={key} value={key}>
              by {name.toLowerCase()}
            </option>
          ))}
        </select>
        <input type="date" name="from" className="entry" aria-label="From" defaultValue={asked.from} />
        <input type="date" name="to" className="entry" aria-label="To" defaultValue={asked.to} />
        <button type="submit" className="btn btn-outline">
          Show
        </button>
      </Form>
      {view.rows.length === 0 ? (
        <Notice title="Nothing was counted in that time">
          <Link className="link" href="/stock/counts">
            Count stock
          </Link>
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>{groups[asked.by]}</th>
              <th className="figure max-sm:hidden">Counted</th>
              <th className="figure">Different</th>
              <th className="figure">Missing</th>
              <th className="figure">Found</th>
              <th className="figure">Net</th>
              <th className="figure max-sm:hidden">Used, not lost</th>
            </tr>
          </thead>
          <tbody>
            {view.rows.map((r) => (
              <tr key={`${r.id} ${r.name}`} className={asked.by === 'item' ? 'two' : 'one'}>
                <td>
                  <Name row={r} by={asked.by} />
                </td>
                <td className="figure max-sm:hidden">{format.quantity(r.counted * 1e6)}</td>
                <td className="figure">{r.differing === 0 ? '–' : format.quantity(r.differing * 1e6)}</td>
                <td className="figure">
                  {money(r.lessValue)}
                  <Quantity q={r.less} unit={r.unit} format={format} />
                </td>
                <td className="figure">
                  {money(r.moreValue)}
                  <Quantity q={r.more} unit={r.unit} format={format} />
                </td>
                <td className={`figure ${nets(r) < 0 ? 'text-stop' : ''}`}>{money(nets(r))}</td>
                <td className="figure max-sm:hidden">
                  {money(r.usedValue)}
                  <Quantity q={r.used} unit={r.unit} format={format} />
                </td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="one font-semibold">
              <td>In all</td>
              <td className="max-sm:hidden" />
              <td />
              <td className="figure">{money(sum.lessValue)}</td>
              <td className="figure">{money(sum.moreValue)}</td>
              <td className="figure">{money(nets(sum))}</td>
              <td className="figure max-sm:hidden">{money(sum.usedValue)}</td>
            </tr>
          </tfoot>
        </table>
      )}
    </WholeList>
  );
}

function Name({ row, by }: { row: DifferenceLine; by: DifferencesAsked['by'] }) {
  if (by === 'reason' && row.name === null) return <span className="second">no reason given</span>;
  if (by !== 'item') return row.name;
  return (
    <>
      <Link className="name block" prefetch={false} href={`/stock/movements?item=${row.id}&kind=count`}>
        {row.name}
      </Link>
      <span className="code">{row.number}</span>
    </>
  );
}

const Quantity = ({ q, unit, format }: { q: number | null; unit: string | null; format: Format }) =>
  q === null || q === 0 || unit === null ? null : (
    <span className="second block">
      {format.quantity(q)} {plural(unit, q)}
    </span>
  );
