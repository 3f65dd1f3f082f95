import type { Metadata } from 'next';
import Form from 'next/form';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readStockValue } from '@/services/stock/readStockValue';
import { ExportLinks } from '@/ui/frame/export-links';
import { ListBar, WholeList } from '@/ui/frame/list';
import { Refused } from '@/ui/frame/refused';
import { Notice } from '@/ui/frame/states';

export const metadata: Metadata = { title: 'Value on a day' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value: view, failure } = shown(await readStockValue(deps(), actor, { on: text(params.on) }));
  if (failure) return <Refused failure={failure} format={format} />;
  const amount = (minor: number) => (minor === 0 ? '–' : format.amount(minor, view.currency));
  return (
    <WholeList>
      <ListBar
        title={`Stock on ${format.dateWithYear(view.on)}`}
        about={`worth ${format.money(view.total, view.currency)} at the close of that day`}
      >
        <Form action="/stock/value" className="ml-auto flex items-center gap-2">
          <input type="date" name="on" className="entry" aria-label="Day" defaultValue={view.on} max={view.today} />
          <button type="submit" className="chip">
            Show
          </button>
        </Form>
        <ExportLinks of="Stock value" path={`/api/exports/stock-value?on=${view.on}`} />
      </ListBar>
      {view.rows.length === 0 ? (
        <Notice title="Nothing was in stock on that day">Stock counts from its first movement on.</Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>Category</th>
              {view.places.map((p) => (
                <th key={p} className="figure max-md:hidden">
                  {p}
                </th>
              ))}
              <th className="figure">In all, {view.currency}</th>
            </tr>
          </thead>
          <tbody>
            {view.rows.map((r) => (
              <tr key={r.category} className="one">
                <td>{r.category}</td>
                {r.values.map((v, i) => (
                  <td key={view.places[i]} className="figure max-md:hidden">
                    {amount(v)}
                  </td>
                ))}
                <td className="figure font-semibold">{amount(r.sum)}</td>
              </tr>
            ))}
            <tr className="one">
              <td className="font-semibold">In all</td>
              {view.sums.map((v, i) => (
                <td key={view.places[i]} className="figure border-t border-ink font-semibold max-md:hidden">
                  {amount(v)}
                </td>
              ))}
              <td className="figure border-t border-ink font-semibold">{format.amount(view.total, view.currency)}</td>
            </tr>
          </tbody>
        </table>
      )}
    </WholeList>
  );
}
