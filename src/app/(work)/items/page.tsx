import type { Metadata } from 'next';
import Link from 'next/link';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readItems } from '@/services/catalogue/readItems';
import { countOf, plural } from '@/ui/format';
import { ListBar, WholeList } from '@/ui/frame/list';
import { Refused } from '@/ui/frame/refused';
import { SearchForm } from '@/ui/frame/search-form';
import { Notice } from '@/ui/frame/states';
import { FreeByPlace } from '@/ui/items/free-by-place';
import { gaugeWords, LevelStrip } from '@/ui/marks/level-strip';

export const metadata: Metadata = { title: 'Items' };

export default async function ItemsPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor, frame } = await frameOf();
  const format = await requestFormat();
  const search = text(params.q).slice(0, 100);
  const locationId = await placeOf(params);
  const { value, failure } = shown(await readItems(deps(), actor, { search, locationId }));
  if (failure) return <Refused failure={failure} format={format} />;
  const { items, currency } = value;
  // A column per place while they fit beside each other, else a list in one cell.
  const columns = locationId === null && frame.locations.length <= 6 ? frame.locations : [];
  return (
    <WholeList>
      <ListBar
        title={countOf(items.length, 'item')}
        about={`stock worth ${format.money(
          items.reduce((sum, i) => sum + i.value, 0),
          currency,
        )}`}
      >
        <SearchForm action="/items" search={search} at={text(params.at)} />
      </ListBar>
      {items.length === 0 ? (
        <Notice title={search ? `No item has “${search}” in its name or number` : 'There is no item yet'}>
          <Link className="link" href="/items">
            Show all items
          </Link>
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th className="sm:w-[30%]">Item</th>
              {columns.length === 0 && <th>{locationId === null ? 'Free at each place' : 'Stock'}</th>}
              {columns.map((l) => (
                <th key={l.id} className="figure max-md:hidden">
                  Free at
                  <br />
                  {l.name}
                </th>
              ))}
              <th className="figure">On hand</th>
              <th className="figure max-sm:hidden">Coming</th>
              <th className="figure max-sm:hidden">Value</th>
              <th className="max-md:hidden">Bought from</th>
              <th className="figure max-md:hidden">
                List price
                <br />
                each
              </th>
              <th className="figure max-sm:hidden">Needs</th>
            </tr>
          </thead>
          <tbody>
            {items.map(({ item, gauge, byPlace, value: worth, supplier, each, openNeeds }) => (
              <tr key={item.id} className="two">
                <td>
                  <Link className="name block" href={`/items/${item.id}`}>
                    {item.name}
                  </Link>
                  <span className="code">{item.number}</span>
                  {columns.length > 0 && (
                    <span className="block md:hidden">
                      <FreeByPlace places={byPlace} format={format} coming={0} />
                    </span>
                  )}
                </td>
                {columns.length === 0 && (
                  <td>
                    {locationId === null ? (
                      <FreeByPlace places={byPlace} format={format} coming={gauge.coming + gauge.inTrays} />
                    ) : (
                      <>
                        <LevelStrip gauge={gauge} format={format} id={`i${item.id}`} />
                        <span className="second">{gaugeWords(gauge, format)}</span>
                      </>
                    )}
                  </td>
                )}
                {columns.map((l) => {
                  const free = byPlace.find((p) => p.name === l.name)?.free;
                  return (
                    <td
                      key={l.id}
                      className={`figure max-md:hidden ${free && free < 0 ? 'font-semibold text-stop' : ''}`}
                    >
                      {free === undefined ? '–' : format.quantity(free)}
                    </td>
                  );
                })}
                <td className={`figure font-semibold ${gauge.onHand < 0 ? 'text-stop' : ''}`}>
                  {format.quantity(gauge.onHand)}
                  <span className="second block font-normal">{plural(item.unitName, gauge.onHand)}</span>
                </td>
                <td className="figure max-sm:hidden">
                  {gauge.coming + gauge.inTrays === 0 ? '–' : format.quantity(gauge.coming + gauge.inTrays)}
                </td>
                <td className="figure max-sm:hidden">{format.amount(worth, currency)}</td>
                <td className="max-md:hidden">{supplier ?? <span className="marker">no supplier</span>}</td>
                <td className="figure max-md:hidden">{each ?? '–'}</td>
                <td className="figure max-sm:hidden">{openNeeds === 0 ? '–' : openNeeds}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </WholeList>
  );
}
