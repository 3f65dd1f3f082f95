import Link from 'next/link';
import type { ReactNode } from 'react';
import { paymentWords } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { weekText } from '@/core/sheets';
import type { SoldItem, SupplierView } from '@/services/catalogue/readSuppliers';
import { countOf, type Format, plural } from '../format';
import { ListAndPanel } from '../frame/states';
import { orderWords } from '../marks/order-track';
import { leadTimeWords } from './lead-time-words';
import { SupplierHead } from './supplier-head';

const regimes = {
  domestic: '',
  within_union: 'within the union',
  import: 'import',
  exempt: 'exempt',
} as const;
const payers = {
  prepaid: 'prepaid by the supplier',
  collect: 'collect, paid by us',
  third_party: 'paid by a third party',
};

/** One supplier: what is open there and what it charges; beside it its terms and how it has delivered. */
export function SupplierPage({ view, format }: { view: SupplierView; format: Format }) {
  const { terms, sold, orders } = view;
  return (
    <ListAndPanel label="Terms and record" panel={<Terms view={view} format={format} />}>
      <SupplierHead terms={terms} here="" />
      <section className="px-4 pt-4">
        <h2 className="head">Open orders</h2>
        {orders.length === 0 && <p className="second">Nothing is on order here.</p>}
        {orders.map((o) => (
          <div key={o.id} className="grid grid-cols-[110px_1fr_auto] items-baseline gap-2 py-1">
            <Link className="link" href={`/orders/${o.id}`} prefetch={false}>
              {o.number ?? 'draft'}
            </Link>
            <span className="second">
              {orderWords(o.state, 'nothing')}, {format.date(o.orderDate)} · {countOf(o.open, 'part')} open
            </span>
            <span>{o.wanted ? `wanted ${format.due(o.wanted, view.today).text}` : '–'}</span>
          </div>
        ))}
      </section>
      <section className="pt-6 pb-8">
        <h2 className="head mx-4">
          What we buy there <span className="font-normal text-muted">{terms.currency}, in force today</span>
        </h2>
        {sold.length === 0 ? (
          <p className="second px-4">No item is bought here yet.</p>
        ) : (
          <table className="sheet">
            <thead>
              <tr>
                <th>Item</th>
                <th className="max-sm:hidden">Their number</th>
                <th className="figure">From</th>
                <th className="figure">Price</th>
                <th className="figure">Each</th>
              </tr>
            </thead>
            <tbody>
              {sold.map((s) => (
                <Sold key={s.itemId} item={s} format={format} />
              ))}
            </tbody>
          </table>
        )}
      </section>
    </ListAndPanel>
  );
}

function Sold({ item, format }: { item: SoldItem; format: Format }) {
  const pack = item.packName ?? item.unitName;
  const lines = (of: (s: SoldItem['steps'][number]) => ReactNode) =>
    item.steps.map((s) => (
      <span key={s.from} className="block">
        {of(s)}
      </span>
    ));
  return (
    <tr className="two align-top">
      <td>
        <Link className="name block" href={`/items/${item.itemId}`} prefetch={false}>
          {item.name}
        </Link>
        <span className="second">
          <span className="code">{item.number}</span>
          {item.next && ` · from ${format.date(item.next.from)} ${format.price(item.next.amount)}`}
        </span>
      </td>
      <td className="code max-sm:hidden">{item.theirNumber || '–'}</td>
      <td className="figure">
        {lines((s) => (
          <>
            {s.from === 0 ? 1 : format.quantity(s.from)} <span className="second">{plural(pack, s.from || 1e6)}</span>
          </>
        ))}
      </td>
      <td className="figure font-semibold">
        {item.steps.length === 0 && <span className="marker">no price</span>}
        {lines((s) => format.price(s.amount) + (s.per === '1' ? '' : ` for ${s.per}`))}
      </td>
      <td className="figure">{lines((s) => format.price(s.each))}</td>
    </tr>
  );
}

const days = (n: number) => n.toFixed(1).replace(/\.0$/, '');

function Terms({ view, format }: { view: SupplierView; format: Format }) {
  const { terms: t, record } = view;
  const money = (text: string | null) => text && `${format.price(Number(text).toFixed(2))} ${t.currency}`;
  const figure = (text: string) => format.quantity(fromDecimal(text));
  const facts: (readonly [string, ReactNode])[] = [
    ['Lead time', `${leadTimeWords(t)}, as stated`],
    ['Order days', `${weekText(t.orderDays)}${t.cutOff ? `, until ${t.cutOff}` : ''}`],
    [
      'Minimum',
      [
        view.minimum > 0 && format.amount(view.minimum, t.currency),
        t.minimumWeightKg && `${figure(t.minimumWeightKg)} kg`,
        t.minimumQuantity && `${figure(t.minimumQuantity)} units`,
      ]
        .filter(Boolean)
        .join(', ') || 'none',
    ],
    [
      'Freight',
      [
        t.freightPayer && payers[t.freightPayer],
        t.freightFixed && `${money(t.freightFixed)} an order`,
        t.freightPerKg && `${money(t.freightPerKg)} a kg`,
        t.freightFreeFrom && `free from ${money(t.freightFreeFrom)}`,
      ]
        .filter(Boolean)
        .join(', '),
    ],
    // Own words and the Incoterm often say the same.
    ['Delivery', [...new Set([t.deliveryTerms, `${t.incoterm} ${t.incotermPlace}`.trim()])].filter(Boolean).join('; ')],
    ['Shipping', t.shippingWay],
    [
      'Tolerance',
      [
        t.overPercent && `${figure(t.overPercent)} % over`,
        t.underPercent && `${figure(t.underPercent)} % under`,
        t.dateToleranceDays !== null && countOf(t.dateToleranceDays, 'day'),
      ]
        .filter(Boolean)
        .join(', '),
    ],
    ['Tax', regimes[t.taxRegime]],
    [
      'Closed',
      view.closures.map((c) => `${format.date(c.from)}–${format.date(c.to)}${c.name ? `, ${c.name}` : ''}`).join('; '),
    ],
    [
      'Charges',
      view.charges.length > 0 && (
        <ul key="c">
          {view.charges.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      ),
    ],
    [
      'Payment',
      paymentWords({
        words: t.paymentTerms,
        days: t.paymentDays,
        discountPercent: t.discountPercent,
        discountDays: t.discountDays,
      }),
    ],
    ['Text on orders', t.orderText],
    [
      'Address',
      <span key="a" className="whitespace-pre-line">
        {t.address}
      </span>,
    ],
    ['Contact', [t.contact, t.email, t.phone].filter(Boolean).join(', ')],
    ['Language', t.language],
  ];
  const { days: lead } = record;
  return (
    <div className="grid gap-6">
      <section>
        <h2 className="head">Terms</h2>
        <dl className="grid grid-cols-[100px_1fr] gap-x-3 gap-y-[3px]">
          {facts
            .filter(([, value]) => value)
            .map(([name, value]) => (
              <div key={name} className="contents">
                <dt className="second pt-px">{name}</dt>
                <dd className="break-words">{value}</dd>
              </div>
            ))}
        </dl>
      </section>
      <section>
        <h2 className="head">
          Record <span className="font-normal text-muted">order to receipt, calendar days</span>
        </h2>
        {lead === null ? (
          <p className="second">
            Nothing has come from here yet. Deliveries from before can be brought as a spreadsheet.
          </p>
        ) : (
          <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-[3px]">
            {(
              [
                ['Lines that came', String(lead.n)],
                ['Half of them within', `${days(lead.median)} days`],
                ['Nine of ten within', `${days(lead.p90)} days`],
                ['On average', `${days(lead.mean)} days${lead.sd === null ? '' : ` ± ${days(lead.sd)}`}`],
                record.promised > 0
                  ? ['On the day promised or before', `${record.onTime} of ${record.promised}`]
                  : ['On the day promised or before', 'none was promised'],
              ] as const
            ).map(([name, value]) => (
              <div key={name} className="contents">
                <dt>{name}</dt>
                <dd className="figure font-semibold">{value}</dd>
              </div>
            ))}
          </dl>
        )}
      </section>
    </div>
  );
}
