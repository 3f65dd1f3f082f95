import Form from 'next/form';
import Link from 'next/link';
import { fromDecimal } from '@/core/quantity';
import type { LotSummary, LotsAsked, LotsView, LotView } from '@/services/stock/readLots';
import { countOf, type Format, plural } from '../format';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';
import { movementWords } from './words';

/** Lots and serial numbers: what is left of each, and where. */
export function LotsPage(props: { view: LotsView; asked: LotsAsked; at: string; format: Format }) {
  const { view, asked, at, format } = props;
  return (
    <WholeList>
      <ListBar
        title={countOf(view.lots.length, 'lot')}
        about={
          view.item ? `of ${view.item.name} ${view.item.number}` : asked.search === '' ? 'with something left' : ''
        }
      />
      <Form action="/stock/lots" className="flex flex-wrap items-center gap-2 border-b border-rule px-4 py-2">
        {at && <input type="hidden" name="at" value={at} />}
        {asked.itemId !== null && <input type="hidden" name="item" value={asked.itemId} />}
        <input
          name="q"
          className="entry w-72"
          placeholder="lot or serial number, item"
          aria-label="Search lots"
          defaultValue={asked.search}
        />
        <button type="submit" className="btn btn-outline">
          Find
        </button>
        {(asked.search !== '' || asked.itemId !== null) && (
          <Link className="link" href="/stock/lots" prefetch={false}>
            all with something left
          </Link>
        )}
      </Form>
      {view.lots.length === 0 ? (
        <Notice title={asked.search ? `No lot fits “${asked.search}”` : 'Nothing is kept by lot here yet'}>
          Lots and serial numbers are entered when goods are booked in, of items that are tracked so.
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>Lot or serial number</th>
              <th>Item</th>
              <th className="max-sm:hidden">Best before</th>
              <th className="figure">Left</th>
              <th>Where</th>
            </tr>
          </thead>
          <tbody>
            {view.lots.map((l) => (
              <tr key={l.lotId} className="two">
                <td>
                  <Link className="name font-mono" href={`/stock/lots/${l.lotId}`} prefetch={false}>
                    {l.code}
                  </Link>
                </td>
                <td>
                  <Link className="block hover:underline" href={`/items/${l.itemId}`} prefetch={false}>
                    {l.itemName}
                  </Link>
                  <span className="code">{l.itemNumber}</span>
                </td>
                <td className="max-sm:hidden">
                  <BestBefore lot={l} today={view.today} format={format} />
                </td>
                <td className="figure">
                  {l.left === 0 ? 'none' : format.quantity(l.left)}{' '}
                  {l.left > 0 && <span className="second">{plural(l.unit, l.left)}</span>}
                </td>
                <td>
                  <Where lot={l} format={format} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {view.more && <p className="second px-4 py-4">There are more; search for one.</p>}
    </WholeList>
  );
}

function Where({ lot, format }: { lot: LotSummary; format: Format }) {
  if (lot.places.length === 0) return <span className="second">gone</span>;
  if (lot.tracking === 'serial') return lot.places.map((p) => p.location).join(', ');
  return lot.places.map((p) => `${p.location} ${format.quantity(p.quantity)}`).join(', ');
}

function BestBefore({ lot, today, format }: { lot: LotSummary; today: string; format: Format }) {
  if (lot.bestBefore === null) return '–';
  const past = lot.bestBefore < today;
  return (
    <span className={past && lot.left > 0 ? 'font-semibold text-stop' : ''}>
      {format.dateWithYear(lot.bestBefore)}
      {past && lot.left > 0 && ', past'}
    </span>
  );
}

/** One lot or serial number: where it lies, and everything that happened to it. */
export function LotPage({ view, format }: { view: LotView; format: Format }) {
  const { lot, moves, today, currency } = view;
  return (
    <WholeList>
      <ListBar title={lot.code} about={lot.tracking === 'serial' ? 'serial number' : 'lot'}>
        <Link className="link ml-auto" href={`/stock/lots?item=${lot.itemId}`} prefetch={false}>
          Others of this item
        </Link>
      </ListBar>
      <p className="px-4 pt-3">
        <Link className="name" href={`/items/${lot.itemId}`} prefetch={false}>
          {lot.itemName}
        </Link>{' '}
        <span className="code">{lot.itemNumber}</span>
      </p>
      <p className="px-4 py-1">
        {lot.left === 0 ? 'Nothing is left.' : <Where lot={lot} format={format} />}
        {lot.bestBefore !== null && (
          <>
            {' '}
            Best before <BestBefore lot={lot} today={today} format={format} />.
          </>
        )}
        {lot.cost !== null && ` It cost ${format.money(lot.cost, currency)}, and leaves at that.`}
      </p>
      <table className="sheet mt-2">
        <thead>
          <tr>
            <th>Day</th>
            <th>Where</th>
            <th>What</th>
            <th className="figure">Change</th>
            <th className="max-sm:hidden">By</th>
          </tr>
        </thead>
        <tbody>
          {moves.map((m, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: movements have nothing else that tells them apart here, and never change.
            <tr key={i} className="one">
              <td className="whitespace-nowrap">{format.dateWithYear(m.businessDate)}</td>
              <td>{m.location}</td>
              <td>
                {movementWords[m.kind as keyof typeof movementWords] ?? m.kind}{' '}
                <span className="code">{m.documentNumber}</span>
              </td>
              <td className="figure font-semibold">
                {fromDecimal(m.quantity) > 0 ? '+' : ''}
                {format.quantity(fromDecimal(m.quantity))}
              </td>
              <td className="second max-sm:hidden">{m.who ?? '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </WholeList>
  );
}
