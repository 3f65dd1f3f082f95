import Link from 'next/link';
import type { ReactNode } from 'react';
import { fromDecimal } from '@/core/quantity';
import type { ItemView } from '@/services/catalogue/readItems';
import { type Format, plural } from '../format';

const purposes = { resale: '', own_use: 'own use', service: 'service', one_off: 'one-off' } as const;
const trackings = { none: '', lot: 'by lot', serial: 'by serial number' } as const;

/** What is on file of an item, as far as anything is: a fact that nobody has filled in takes no place. */
export function ItemFactsList({ view, format }: { view: ItemView; format: Format }) {
  const { facts: f, barcodes, components, item, currency } = view;
  const figure = (text: string) => format.quantity(fromDecimal(text));
  const price = (text: string) => format.price(Number(text).toFixed(2));
  const facts: (readonly [string, ReactNode])[] = [
    [
      'Sale price',
      f.salePrice &&
        `${price(f.salePrice)} ${currency} ${f.saleWithTax ? 'with' : 'without'}${f.saleTaxRate ? ` ${figure(f.saleTaxRate)} %` : ''} tax`,
    ],
    ['Standard cost', f.standardCost && `${price(f.standardCost)} ${currency} a ${item.unitName}`],
    ['Family', f.family && `${f.family}: ${[f.value1, f.value2].filter(Boolean).join(', ')}`],
    ['Maker', [f.maker, f.makerNumber].filter(Boolean).join(', ')],
    ['Barcode', barcodes.length > 0 && <Codes codes={barcodes} />],
    [
      'Tracked',
      trackings[f.tracking] && (
        <Link className="link" prefetch={false} href={`/stock/lots?item=${item.id}`}>
          {trackings[f.tracking]}
        </Link>
      ),
    ],
    ['Bought for', purposes[f.purpose]],
    ['Weight', f.weightKg && `${figure(f.weightKg)} kg`],
    ['Volume', f.volumeL && `${figure(f.volumeL)} l`],
    ['HS code, origin', [f.hsCode, f.origin].filter(Boolean).join(', ')],
    [
      'Dangerous goods',
      f.unNumber &&
        [`UN ${f.unNumber}`, f.hazardClass && `class ${f.hazardClass}`, f.packingGroup, f.hazardName]
          .filter(Boolean)
          .join(', '),
    ],
    ['Tax, account', [f.taxCategory, f.account, f.department].filter(Boolean).join(', ')],
    ['Edition', f.edition],
    [
      'Successor',
      f.successorId && (
        <Link className="link" href={`/items/${f.successorId}`}>
          {f.successor}
        </Link>
      ),
    ],
  ];
  const known = facts.filter(([, value]) => value);
  return (
    <>
      {f.buyerNote && (
        <section>
          <h2 className="head">Note to the buyer</h2>
          <p>{f.buyerNote}</p>
        </section>
      )}
      {components.length > 0 && (
        <section>
          <h2 className="head">Made of</h2>
          {components.map((c) => (
            <div key={c.id} className="flex justify-between gap-3 py-[3px]">
              <Link className="link" href={`/items/${c.id}`}>
                {c.name}
              </Link>
              <span className="figure whitespace-nowrap">
                {figure(c.quantity)} {plural(c.unitName, fromDecimal(c.quantity))}
              </span>
            </div>
          ))}
        </section>
      )}
      {known.length > 0 && (
        <section>
          <h2 className="head">On file</h2>
          <dl className="grid grid-cols-[110px_1fr] gap-x-3 gap-y-[3px]">
            {known.map(([name, value]) => (
              <div key={name} className="contents">
                <dt className="second pt-px">{name}</dt>
                <dd className="break-words">{value}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
    </>
  );
}

const Codes = ({ codes }: { codes: ItemView['barcodes'] }) => (
  <ul>
    {codes.map((c) => (
      <li key={c.text}>
        <span className="code">{c.text}</span> {c.pack && <span className="second">{c.pack}</span>}
      </li>
    ))}
  </ul>
);
