import type { ReactNode } from 'react';
import type { ItemListHead, ItemSummary } from '@/services/catalogue/readItems';
import { type Format, plural } from '../format';
import { FreeByPlace } from './free-by-place';

type Shown = { readonly format: Format; readonly head: ItemListHead };
/** A column of the list of items that can be shown or not. */
export type ItemColumn = {
  readonly key: string;
  readonly title: string;
  readonly width: string;
  readonly figure?: true;
  readonly sort?: 'value';
  readonly cell: (row: ItemSummary, shown: Shown) => ReactNode;
};

const none = '–';
const statuses = { active: 'active', phase_out: 'phase-out', stopped: 'stopped' } as const;

/** Every column besides the item itself, in the order in which they stand. */
export const itemColumns: readonly ItemColumn[] = [
  {
    key: 'free',
    title: 'Free at each place',
    width: 'minmax(0, 24fr)',
    cell: (r, { format }) => <FreeByPlace places={r.byPlace} format={format} />,
  },
  {
    key: 'on_hand',
    title: 'On hand',
    width: '74px',
    figure: true,
    cell: ({ gauge, item }, { format }) =>
      item.stockKept === 0 ? (
        <span className="second">{availabilityWords(item.availability)}</span>
      ) : (
        <span className={`leading-tight font-semibold ${gauge.onHand < 0 ? 'text-stop' : ''}`}>
          {format.quantity(gauge.onHand)}
          <span className="second block font-normal">{plural(item.unitName, gauge.onHand)}</span>
        </span>
      ),
  },
  {
    key: 'coming',
    title: 'Coming',
    width: '62px',
    figure: true,
    cell: ({ gauge }, { format }) =>
      gauge.coming + gauge.inTrays === 0 ? none : format.quantity(gauge.coming + gauge.inTrays),
  },
  {
    key: 'value',
    title: 'Value',
    width: '84px',
    figure: true,
    sort: 'value',
    cell: ({ value }, { format, head }) => format.amount(value, head.currency),
  },
  {
    key: 'sale_price',
    title: 'Sale price',
    width: '70px',
    figure: true,
    cell: ({ item }, { format }) => (item.salePrice === null ? none : format.price(Number(item.salePrice).toFixed(2))),
  },
  {
    key: 'last_cost',
    title: 'Last cost',
    width: '64px',
    figure: true,
    cell: ({ lastCost }, { format }) => (lastCost === null ? none : format.price(lastCost)),
  },
  {
    key: 'shelf',
    title: 'Shelf',
    width: '64px',
    cell: ({ shelf }) => shelf || none,
  },
  {
    key: 'supplier',
    title: 'Bought from',
    width: 'minmax(0, 16fr)',
    cell: ({ supplier }) => supplier ?? <span className="marker">no supplier</span>,
  },
  {
    key: 'list_price',
    title: 'List price each',
    width: '78px',
    figure: true,
    cell: ({ each, currency }, { format, head }) =>
      each === null ? (
        none
      ) : (
        <>
          {format.price(each)}
          {currency !== head.currency && <span className="second block">{currency}</span>}
        </>
      ),
  },
  { key: 'category', title: 'Category', width: 'minmax(0, 12fr)', cell: ({ item }) => item.category },
  { key: 'maker', title: 'Maker', width: 'minmax(0, 12fr)', cell: ({ item }) => item.maker || none },
  { key: 'status', title: 'Status', width: '72px', cell: ({ item }) => statuses[item.status] },
  {
    key: 'needs',
    title: 'Needs',
    width: '48px',
    figure: true,
    cell: ({ openNeeds }) => (openNeeds === 0 ? none : openNeeds),
  },
];

/** What the list shows unless somebody chose otherwise. */
export const usualColumns: readonly string[] = ['on_hand', 'coming', 'value', 'supplier', 'list_price', 'needs'];

/** Keys of columns from the address; the usual ones where there is none of them. */
export function columnsFrom(text: string): string[] {
  const wanted = text.split(',').filter((k) => itemColumns.some((c) => c.key === k));
  return wanted.length > 0 ? itemColumns.flatMap((c) => (wanted.includes(c.key) ? [c.key] : [])) : [...usualColumns];
}

export const availabilityWords = (a: 'available' | 'to_order' | 'not_available'): string =>
  ({ available: 'available', to_order: 'available to order', not_available: 'not available' })[a];
