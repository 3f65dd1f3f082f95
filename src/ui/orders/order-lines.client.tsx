'use client';

import Link from 'next/link';
import { Fragment, useState } from 'react';
import { entryText, toDecimal } from '@/core/quantity';
import type { LineView, OrderView, PartView } from '@/services/purchase/readOrder';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { FamilyWindow } from './family-window.client';
import { LineLanded, LineMore, purposeWords } from './line-more.client';
import { Cell, Edition, Notes, Price, PriceCell, RemoveLine, useEdit } from './order-cells.client';
import { SplitDelivery } from './split-delivery.client';
import { matchingWords } from './words';

/** The lines of an order; while it is a draft every cell can be changed and is saved on its own. */
export function OrderLines({ order }: { order: OrderView }) {
  const format = useFormat();
  const editable = order.can.includes('edit');
  const { currency, id: orderId } = order.head;
  const [family, setFamily] = useState<LineView | null>(null);
  const [below, setBelow] = useState<{ readonly lineId: number; readonly what: 'more' | 'landed' } | null>(null);
  const toggle = (lineId: number, what: 'more' | 'landed') =>
    setBelow(below?.lineId === lineId && below.what === what ? null : { lineId, what });
  const charges = order.sums.charges.filter((c) => !c.leftOut);
  return (
    <>
      {family && <FamilyWindow order={order} line={family} onLeave={() => setFamily(null)} />}
      <table className="sheet">
        <thead>
          <tr>
            <th className="w-8" aria-label="Line" />
            <th style={{ width: '26%' }}>Item</th>
            <th>Quantity, place and day</th>
            <th className="figure">
              Price
              <br />
              per pack
            </th>
            <th className="figure">Net</th>
            {editable && <th aria-label="Actions" />}
          </tr>
        </thead>
        <tbody>
          {order.lines.map((l) => {
            // What was voided stays as it is.
            const open = editable && l.base > 0;
            const shown = below?.lineId === l.id ? below.what : null;
            return (
              <Fragment key={l.id}>
                <tr className="align-top">
                  <td className="text-muted">{l.lineNo}</td>
                  <td>
                    {l.itemId === null ? (
                      <span className="name">{l.description}</span>
                    ) : (
                      <Link className="name" href={`/items/${l.itemId}`}>
                        {l.description}
                      </Link>
                    )}
                    <span className="second block">
                      <span className="code">{l.itemNumber}</span>
                      {l.supplierItemNumber && ` · theirs ${l.supplierItemNumber}`}
                      {l.makersNumber && ` · maker’s ${l.makersNumber}`}
                    </span>
                    {(l.unordered || l.base === 0) && (
                      <span className="marker mt-1 w-fit">
                        {l.unordered
                          ? `came without being ordered${l.base === 0 ? ', taken back' : ''}`
                          : 'taken off the order'}
                      </span>
                    )}
                    {open && l.family && (
                      <button
                        type="button"
                        className="link second mr-3 inline-flex min-h-6 items-center"
                        aria-label={`The family of ${l.description}`}
                        onClick={() => setFamily(l)}
                      >
                        family
                      </button>
                    )}
                    {open && (
                      <button
                        type="button"
                        className="link second mr-3 inline-flex min-h-6 items-center"
                        aria-label={`Discount and booking of ${l.description}`}
                        aria-expanded={shown === 'more'}
                        onClick={() => toggle(l.id, 'more')}
                      >
                        booking
                      </button>
                    )}
                    <Notes orderId={orderId} line={l} editable={open} />
                    <Booked line={l} editable={open} />
                    {open && l.buyerNote && <span className="note mt-1 block">{l.buyerNote}</span>}
                    {l.edition !== '' && <Edition orderId={orderId} line={l} editable={open} />}
                  </td>
                  <td>
                    <div className="grid gap-1.5">
                      {l.parts.map((p) => (
                        <Part key={p.id} orderId={orderId} line={l} part={p} editable={open} places={order.places} />
                      ))}
                      {l.parts.length > 1 && (
                        <span className="second">
                          together {format.quantity(l.packs)} {plural(l.packName, l.packs)}, {format.quantity(l.base)}{' '}
                          {plural(l.unit, l.base)}
                        </span>
                      )}
                    </div>
                  </td>
                  <td className="figure">
                    {open ? <PriceCell orderId={orderId} line={l} currency={currency} /> : <Price line={l} />}
                  </td>
                  <td className="figure font-semibold">
                    <span className={open ? 'block leading-7' : ''}>{format.amount(l.net, currency)}</span>
                    {l.landed && l.landed.each !== null && (
                      <button
                        type="button"
                        className="link second ml-auto block min-h-6 text-right font-normal whitespace-nowrap"
                        aria-label={`What ${l.description} costs landed`}
                        aria-expanded={shown === 'landed'}
                        onClick={() => toggle(l.id, 'landed')}
                      >
                        {currency === order.baseCurrency ? '' : `${order.baseCurrency} `}
                        {format.price(l.landed.each)} landed
                      </button>
                    )}
                  </td>
                  {editable && <td className="figure">{open && <RemoveLine orderId={orderId} line={l} />}</td>}
                </tr>
                {shown && (
                  <tr>
                    <td aria-hidden="true" />
                    <td colSpan={editable ? 5 : 4} className="pb-3">
                      {shown === 'more' ? (
                        <LineMore orderId={orderId} line={l} currency={currency} places={order.places} />
                      ) : (
                        <LineLanded line={l} charges={charges} currency={order.baseCurrency} />
                      )}
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

/** How a line is booked where that is not as usual. */
function Booked({ line, editable }: { line: LineView; editable: boolean }) {
  const { own, account, purpose, taxCategory, inspect, matching } = line.booking;
  const said = [
    line.boughtFor.length > 0 && `for ${line.boughtFor.join(', ')}`,
    own.costTo !== '' && `booked to ${account}`,
    own.purpose !== null && `for ${purposeWords[purpose]}`,
    own.taxCategory !== '' && `tax ${taxCategory}`,
    own.matching !== null && `invoice held against ${matchingWords[matching]}`,
    inspect && 'inspected when it comes',
  ].filter(Boolean);
  return said.length === 0 ? null : (
    <span className={`second block ${editable ? '' : 'mt-0.5'}`}>{said.join(' · ')}</span>
  );
}

/** Where a part goes: a place of ours, or straight to a customer. */
function Where({ part }: { part: PartView }) {
  if (!part.straight) return part.location;
  return (
    <>
      straight to{' '}
      <Link className="link" prefetch={false} href={`/promises/${part.straight.orderId}`}>
        {part.location}
      </Link>
    </>
  );
}

function Part({
  orderId,
  line,
  part,
  editable,
  places,
}: {
  orderId: number;
  line: LineView;
  part: PartView;
  editable: boolean;
  places: OrderView['places'];
}) {
  const format = useFormat();
  const edit = useEdit(orderId);
  const packs = toDecimal(part.packs);
  const about = `${line.description}, ${part.location}`;
  const came = part.received > 0 && (
    <span className="second">
      {format.quantity(part.received)} of {format.quantity(part.base)} {plural(line.unit, part.base)} came
    </span>
  );
  if (!editable) {
    return (
      <span className="grid grid-cols-[118px_minmax(0,150px)_1fr] items-baseline gap-x-2.5 max-sm:grid-cols-1">
        <span>
          <strong className="font-semibold">{format.quantity(part.packs)}</strong> {plural(line.packName, part.packs)}
          {line.unit !== '' && line.packName !== line.unit && (
            <span className="second">
              {' '}
              {format.quantity(part.base)} {plural(line.unit, part.base)}
            </span>
          )}
        </span>
        <span>
          <Where part={part} />
        </span>
        <span className="font-semibold whitespace-nowrap">
          {part.confirmedDate && part.confirmedDate !== part.wantedDate ? (
            <>
              {format.date(part.confirmedDate)}
              <span className="marker ml-1.5 font-normal">
                wanted {part.wantedDate ? format.date(part.wantedDate) : 'no day'}
              </span>
            </>
          ) : part.wantedDate ? (
            <>
              {format.date(part.wantedDate)}
              {part.promisedDate && part.confirmedDate === null && part.promisedDate !== part.wantedDate && (
                <span className="second ml-1.5 font-normal">promised {format.date(part.promisedDate)}</span>
              )}
            </>
          ) : (
            '–'
          )}
        </span>
        {came && <span className="col-span-full">{came}</span>}
        {part.cancelled > 0 && (
          <span className="second col-span-full">
            {format.quantity(part.cancelled)} {plural(line.unit, part.cancelled)} of it cancelled
          </span>
        )}
      </span>
    );
  }
  return (
    <span className="grid grid-cols-[58px_74px_1fr_auto_auto] items-start gap-x-2">
      <Cell
        label={`Quantity of ${about}`}
        value={entryText(part.packs)}
        className="figure w-14"
        save={(now) => edit({ field: 'packs', partId: part.id, was: packs, now })}
      />
      <span>
        {plural(line.packName, part.packs)}
        {line.unit !== '' && line.packName !== line.unit && (
          <span className="second block">
            {format.quantity(part.base)} {plural(line.unit, part.base)}
          </span>
        )}
      </span>
      <span className="pt-1">
        <Where part={part} />
      </span>
      <Cell
        label={`Wanted date of ${about}`}
        placeholder="day?"
        value={part.wantedDate ? format.date(part.wantedDate) : ''}
        className="w-[92px]"
        save={(now) => edit({ field: 'wantedDate', partId: part.id, was: part.wantedDate ?? '', now })}
      />
      <SplitDelivery orderId={orderId} part={part} about={about} packName={line.packName} places={places} />
      {came && <span className="col-span-full">{came}</span>}
    </span>
  );
}
