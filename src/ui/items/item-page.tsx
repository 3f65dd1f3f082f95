import Link from 'next/link';
import { fromDecimal, toDecimal } from '@/core/quantity';
import type { ItemPlace, ItemView } from '@/services/catalogue/readItems';
import { type Format, plural } from '../format';
import { ListAndPanel } from '../frame/states';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { OrderLink } from '../orders/order-link.client';
import { BoughtLines } from './bought-lines';
import { availabilityWords } from './columns';
import { ItemFactsList } from './item-facts';
import { ItemHead } from './item-head';
import { movementWords } from './words';

/** One item: stock and policy at each place, what is on order, its movements; beside it packs, sources, purchases. */
export function ItemPage({ view, format }: { view: ItemView; format: Format }) {
  const { item, places } = view;
  const inTrays = places.reduce((sum, p) => sum + p.gauge.inTrays, 0);
  return (
    <ListAndPanel label="Packs and purchases" panel={<ItemPanel view={view} format={format} />}>
      <ItemHead item={item} here="" />
      {item.stockKept === 0 ? <NoStock view={view} /> : <Places view={view} format={format} />}
      <section className="px-4 pt-6" id="on-order">
        <h2 className="head">On order</h2>
        {view.expected.length === 0 && (
          <p className="second">
            Nothing is on order
            {inTrays > 0 && `; ${format.quantity(inTrays)} ${plural(item.unitName, inTrays)} are in trays and drafts`}.
          </p>
        )}
        {view.expected.map((e) => {
          const { open } = e;
          return (
            <div key={e.partId} className="grid grid-cols-[90px_1fr_130px_100px] items-baseline gap-2 py-1">
              <OrderLink id={e.orderId}>{e.orderNumber}</OrderLink>
              <span>
                {e.supplier}{' '}
                <span className="second">for {places.find((p) => p.locationId === e.locationId)?.location}</span>
              </span>
              <span>{e.expectedDate ? format.date(e.expectedDate) : '–'}</span>
              <span className="figure font-semibold">
                {format.quantity(open)} <span className="second font-normal">{plural(e.unitName ?? '', open)}</span>
              </span>
            </div>
          );
        })}
      </section>
      {(item.stockKept === 1 || view.movements.length > 0) && <Movements view={view} format={format} />}
    </ListAndPanel>
  );
}

function Movements({ view: { item, movements, currency }, format }: { view: ItemView; format: Format }) {
  return (
    <section className="pt-6 pb-8" id="movements">
      <h2 className="head mx-4 flex justify-between">
        Movements
        <span className="flex gap-4 font-normal">
          <span className="text-muted">newest first, at most 60</span>
          <Link className="link" prefetch={false} href={`/items/${item.id}/outlook`}>
            Through time
          </Link>
          <Link className="link" prefetch={false} href={`/stock/movements?item=${item.id}`}>
            All of them
          </Link>
        </span>
      </h2>
      <table className="sheet">
        <thead>
          <tr>
            <th>Date</th>
            <th>Where</th>
            <th>What</th>
            <th>By</th>
            <th className="figure">Change</th>
            <th className="figure">On hand then</th>
            <th className="figure">Value</th>
          </tr>
        </thead>
        <tbody>
          {movements.map((m) => (
            <tr key={m.id} className="one">
              <td>{format.date(m.businessDate)}</td>
              <td>{m.location}</td>
              <td>
                {movementWords[m.kind] ?? m.kind}
                {m.documentNumber && ' '}
                {m.orderId ? (
                  <OrderLink id={m.orderId}>{m.documentNumber}</OrderLink>
                ) : (
                  <span className="code">{m.documentNumber}</span>
                )}
                {m.variance !== 0 && (
                  <span className="second"> · {format.amount(m.variance, currency)} to variance</span>
                )}
              </td>
              <td className="second">{m.who ?? '–'}</td>
              <td className="figure font-semibold">{signed(fromDecimal(m.onHandChange), format)}</td>
              <td className={`figure ${m.runningOnHand.startsWith('-') ? 'font-semibold text-stop' : ''}`}>
                {format.quantity(fromDecimal(m.runningOnHand))}
              </td>
              <td className="figure">{format.amount(m.valueChange, currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What is said where no stock is kept: only whether it can be had. */
function NoStock({ view: { item } }: { view: ItemView }) {
  return (
    <p className="px-4 pt-4">
      <strong className="font-semibold">{availabilityWords(item.availability)}</strong>{' '}
      <span className="second">no stock is kept of it, and nothing is refilled</span>
    </p>
  );
}

/** Stock and policy at each place. */
function Places({ view, format }: { view: ItemView; format: Format }) {
  return (
    <table className="sheet">
      <caption className="sr-only">Stock per location</caption>
      <thead>
        <tr>
          <th>Location</th>
          <th>Stock</th>
          <th className="figure">On hand</th>
          <th className="figure">Min</th>
          <th className="figure">Max</th>
          <th className="figure">Need</th>
          <th className="figure">Value</th>
        </tr>
      </thead>
      <tbody>
        {view.places.map((p) => (
          <PlaceRow key={p.locationId} place={p} item={view.item} format={format} currency={view.currency} />
        ))}
      </tbody>
    </table>
  );
}

const signed = (q: number, format: Format) => (q === 0 ? '–' : `${q > 0 ? '+' : '−'}${format.quantity(Math.abs(q))}`);

function PlaceRow({
  place,
  item,
  format,
  currency,
}: {
  place: ItemPlace;
  item: ItemView['item'];
  format: Format;
  currency: string;
}) {
  const { gauge, policy } = place;
  const cell = (q: number | null) => (q === null ? '–' : format.quantity(q));
  return (
    <tr className="two">
      <td>
        <span className="name">{place.location}</span>
        <span className="second block">
          {policy.kind === 'not_carried'
            ? 'not carried here'
            : policy.kind === 'none'
              ? 'no policy yet'
              : policy.origin === 'item'
                ? 'as every location'
                : 'own min/max'}
        </span>
      </td>
      <td>
        <LevelStrip gauge={gauge} format={format} id={`p${place.locationId}`} />
        <span className="second">{gaugeWords(gauge, format)}</span>
      </td>
      <td className={`figure font-semibold ${gauge.onHand < 0 ? 'text-stop' : ''}`}>{format.quantity(gauge.onHand)}</td>
      <td className="figure">{cell(gauge.min)}</td>
      <td className="figure">{cell(gauge.max)}</td>
      <td className="figure">
        {place.needState === 'open' ? (
          <Link className="link font-semibold" href="/needs">
            {format.quantity(place.need)}
          </Link>
        ) : place.needState === 'decided' ? (
          <span className="second">decided</span>
        ) : (
          '–'
        )}
        {place.needState === 'open' && <span className="second block">{plural(item.unitName, place.need)}</span>}
      </td>
      <td className="figure">{format.amount(place.value, currency)}</td>
    </tr>
  );
}

function ItemPanel({ view, format }: { view: ItemView; format: Format }) {
  const { item, packs, sources, bought } = view;
  const content = (c: { num: bigint; den: bigint }) =>
    `${format.quantity(Number((c.num * 1_000_000n) / c.den))} ${plural(item.unitName, 2_000_000)}`;
  return (
    <div className="grid gap-6">
      <section>
        <h2 className="head">Packs</h2>
        {packs.length === 0 && <p className="second">Bought and sold by the {item.unitName}.</p>}
        {packs.map((p) => (
          <div key={p.name} className="flex justify-between py-[3px]">
            <span>{p.name}</span>
            <span className="figure">{content(p.content)}</span>
          </div>
        ))}
      </section>
      <ItemFactsList view={view} format={format} />
      <section>
        <h2 className="head">Sources</h2>
        {sources.length === 0 &&
          (view.components.length > 0 ? (
            <p className="second">Made of other items.</p>
          ) : (
            <p className="fault">No supplier sells this item yet.</p>
          ))}
        {sources.map((s, i) => (
          <div key={s.source.id} className="grid grid-cols-[16px_minmax(0,1fr)_auto] gap-x-2 py-[3px]">
            <span className="text-muted">{i + 1}</span>
            <span>
              <Link className="link" href={`/suppliers/${s.source.supplierId}`} prefetch={false}>
                {s.source.supplierName}
              </Link>
              <span className="second block">
                theirs {s.source.supplierItemNumber} · {s.source.leadTimeDays}{' '}
                {s.source.leadTimeKind === 'working' ? 'working' : 'calendar'} days
              </span>
            </span>
            <span className="figure">
              {s.perPack === null ? (
                <span className="marker">no price</span>
              ) : (
                format.price(toDecimal(fromDecimal(s.perPack)))
              )}
              {s.perPack !== null && (
                <span className="second block">
                  {s.source.currency} per {s.packName ?? item.unitName}, {format.price(Number(s.each).toFixed(4))} each
                </span>
              )}
            </span>
          </div>
        ))}
      </section>
      <section>
        <h2 className="head">
          Last bought <span className="font-normal text-muted">each</span>
        </h2>
        <BoughtLines bought={bought} format={format} />
      </section>
    </div>
  );
}
