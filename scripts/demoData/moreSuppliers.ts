/* Suppliers of the rest of the range. All made up. */

export type SupplierPlan = {
  readonly code: string;
  readonly name: string;
  readonly days: number;
  readonly kind: 'working' | 'calendar';
  /** In minor units of its currency. */
  readonly minimum: number;
  readonly payment: string;
  readonly delivery: string;
  readonly town: string;
  readonly currency?: string;
  readonly orderDays?: number;
  readonly cutOff?: string;
  readonly freight?: { readonly fixed?: string; readonly perKg?: string; readonly freeFrom?: string };
  readonly regime?: 'import' | 'within_union';
  readonly incoterm?: readonly [string, string];
  readonly shipping?: string;
};

const weekdays = (...days: readonly number[]) => days.reduce((bits, d) => bits | (1 << d), 0);

export const moreSuppliers: readonly SupplierPlan[] = [
  {
    ...{ code: 'GTT', name: 'Glen Torvaig Tweed', days: 12, kind: 'working', minimum: 30_000, currency: 'GBP' },
    ...{ payment: '30 days net', delivery: 'FCA Torvaig', town: 'The Waulk Mill, Torvaig', regime: 'import' },
    ...{ incoterm: ['FCA', 'Torvaig'], orderDays: weekdays(0, 3), cutOff: '12:00', shipping: 'Courier' },
  },
  {
    ...{ code: 'MAR', name: 'Marrowdene Buttons', days: 10, kind: 'working', minimum: 15_000, currency: 'GBP' },
    ...{ payment: '30 days net', delivery: 'DAP, parcel', town: '3 Turner Yard, Marrowdene', regime: 'import' },
    ...{ incoterm: ['DAP', 'Quillon'], freight: { fixed: '14.00', freeFrom: '400' }, shipping: 'Parcel' },
  },
  {
    ...{ code: 'KES', name: 'Kestrelby Patterns', days: 9, kind: 'working', minimum: 0, currency: 'GBP' },
    ...{ payment: '60 days net', delivery: 'DAP, parcel', town: '11 Needle Street, Kestrelby', regime: 'import' },
    ...{ incoterm: ['DAP', 'Quillon'], shipping: 'Parcel' },
  },
  {
    ...{ code: 'TAM', name: 'Tamahashi Blades', days: 49, kind: 'calendar', minimum: 80_000, currency: 'JPY' },
    ...{ payment: 'in advance', delivery: 'FOB Tamahashi', town: 'Tamahashi 3-14', regime: 'import' },
    ...{ incoterm: ['FOB', 'Tamahashi'], orderDays: weekdays(0), cutOff: '09:00', shipping: 'Air freight' },
  },
  {
    ...{ code: 'SIL', name: 'Silberhalde Thread', days: 7, kind: 'working', minimum: 20_000, currency: 'CHF' },
    ...{
      payment: '14 days 2 %, 30 days net',
      delivery: 'DAP, parcel',
      town: 'Spulenweg 6, Silberhalde',
      regime: 'import',
    },
    ...{
      incoterm: ['DAP', 'Quillon'],
      freight: { fixed: '12.50', freeFrom: '500' },
      cutOff: '11:00',
      shipping: 'Parcel',
    },
  },
  {
    ...{
      code: 'TAL',
      name: 'Tallowmere Quilting Supply',
      days: 38,
      kind: 'calendar',
      minimum: 60_000,
      currency: 'USD',
    },
    ...{ payment: 'in advance', delivery: 'FCA Tallowmere', town: '200 Thimble Road, Tallowmere', regime: 'import' },
    ...{ incoterm: ['FCA', 'Tallowmere'], orderDays: weekdays(1), shipping: 'Sea freight' },
  },
  {
    ...{ code: 'PIN', name: 'Pinebarrow Notions', days: 42, kind: 'calendar', minimum: 50_000, currency: 'USD' },
    ...{ payment: '30 days net', delivery: 'FCA Pinebarrow', town: '9 Mill Run, Pinebarrow', regime: 'import' },
    ...{ incoterm: ['FCA', 'Pinebarrow'], orderDays: weekdays(1), shipping: 'Sea freight' },
  },
  {
    ...{ code: 'VAN', name: 'Vantorel Trimmings', days: 6, kind: 'working', minimum: 12_000 },
    ...{ payment: '30 days net', delivery: 'DAP, parcel', town: 'Rue du Galon 2, Vantorel', regime: 'within_union' },
    ...{ incoterm: ['DAP', 'Quillon'], freight: { fixed: '9.50', freeFrom: '250' }, shipping: 'Parcel' },
  },
  {
    ...{ code: 'LIN', name: 'Lindwurm Felt', days: 5, kind: 'working', minimum: 8_000 },
    ...{ payment: '30 days net', delivery: 'DAP, parcel', town: 'Filzgasse 40, Lindwurm' },
    ...{ incoterm: ['DAP', 'Quillon'], freight: { perKg: '0.35', freeFrom: '300' }, shipping: 'Own pick-up' },
  },
  {
    ...{ code: 'HEK', name: 'Hekkelund Machines', days: 14, kind: 'working', minimum: 0 },
    ...{ payment: '30 days net', delivery: 'DDP Quillon', town: 'Trædevej 8, Hekkelund', regime: 'within_union' },
    ...{ incoterm: ['DDP', 'Quillon'], shipping: 'Pallet' },
  },
];

export const shippingWays = [
  ['Parcel', 'by parcel service'],
  ['Courier', 'next day'],
  ['Pallet', 'by forwarder; lift needed'],
  ['Air freight', 'customs agent clears'],
  ['Sea freight', 'part container'],
  ['Own pick-up', 'the van of Wendel Yard, Thursdays'],
] as const;

/** Supplier, position, name, how much, how spread, into what. Amounts made up. */
export const charges: readonly (readonly [
  string,
  number,
  string,
  'charge' | 'allowance',
  string,
  string | null,
  string,
  string,
  string,
  string,
])[] = [
  ['TAM', 1, 'Air freight', 'charge', 'asked', '9500', 'JPY', '', 'weight', 'stock'],
  ['TAM', 2, 'Insurance', 'charge', 'percent', '0.6', '', 'Air freight', 'value', 'stock'],
  ['TAM', 3, 'Duty', 'charge', 'duty', null, '', 'Air freight; Insurance', 'value', 'stock'],
  ['TAM', 4, 'Customs agent', 'charge', 'fixed', '38.00', 'EUR', '', 'value', 'expense'],
  ['ISH', 1, 'Air freight', 'charge', 'asked', '62.00', 'EUR', '', 'weight', 'stock'],
  ['ISH', 2, 'Duty', 'charge', 'duty', null, '', 'Air freight', 'value', 'stock'],
  ['TAL', 1, 'Sea freight', 'charge', 'asked', '140.00', 'USD', '', 'volume', 'stock'],
  ['TAL', 2, 'Duty', 'charge', 'duty', null, '', 'Sea freight', 'value', 'stock'],
  ['PIN', 1, 'Sea freight', 'charge', 'asked', '120.00', 'USD', '', 'weight', 'stock'],
  ['PIN', 2, 'Duty', 'charge', 'duty', null, '', 'Sea freight', 'value', 'stock'],
  ['GTT', 1, 'Carriage', 'charge', 'fixed', '22.00', 'GBP', '', 'weight', 'stock'],
  ['GTT', 2, 'Duty', 'charge', 'duty', null, '', 'Carriage', 'value', 'stock'],
  ['MAR', 1, 'Duty', 'charge', 'duty', null, '', '', 'value', 'stock'],
  ['KES', 1, 'Trade discount', 'allowance', 'percent', '5', '', '', 'value', 'stock'],
  ['SIL', 1, 'Duty', 'charge', 'duty', null, '', '', 'value', 'stock'],
  ['TES', 1, 'Pallet fee', 'charge', 'fixed', '18.00', 'EUR', '', 'even', 'stock'],
];

/** HS beginning, origin, percent. Made-up rates, not a tariff. */
export const duties: readonly (readonly [string, string, string])[] = [
  ['50', '', '4'],
  ['5109', '', '5'],
  ['5109', 'GB', '0'],
  ['51', '', '8'],
  ['52', 'US', '8.5'],
  ['55', '', '4'],
  ['54', 'CH', '0'],
  ['54', '', '4'],
  ['56', '', '6.7'],
  ['73', 'JP', '2.7'],
  ['82', 'JP', '3.7'],
  ['9606', 'GB', '0'],
  ['9606', '', '3.7'],
  ['9607', '', '6.7'],
  ['39', '', '6.5'],
];
