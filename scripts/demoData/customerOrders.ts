import type { Actor } from '@/core/people';
import { unwrap } from '@/core/result';
import type { Deps } from '@/services/deps';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { tellCustomer } from '@/services/promise/tellCustomer';

type Said = {
  readonly who: string;
  readonly mail: string;
  readonly phone: string;
  readonly channel: 'counter' | 'web_shop';
  readonly reference: string;
  readonly delivers: 'in_part' | 'complete';
  readonly place: string;
  readonly way: 'collect' | 'from_stock';
  readonly wanted: string;
  readonly hold: string;
  readonly lines: readonly (readonly [number: string, quantity: string])[];
};

const usual = { phone: '', channel: 'counter', reference: '', delivers: 'in_part', way: 'collect', hold: '' } as const;

/** Eight customers who wait: some of it lies ready, some is on the way, some nobody has ordered yet. Names are made up. */
const waiting: readonly Said[] = [
  {
    ...usual,
    who: 'Ada Fenwright',
    mail: 'ada@fenwright.example',
    place: 'HS',
    wanted: '',
    lines: [['22610-01', '3.5']],
  },
  {
    ...usual,
    ...{ who: 'Lotte Brandywick', mail: 'lotte@brandywick.example', channel: 'web_shop', reference: 'W-1043' },
    ...{ delivers: 'complete', place: 'OM', way: 'from_stock', wanted: '+2' },
    lines: [
      ['22520-14', '6'],
      ['22410-02', '4'],
    ],
  },
  { ...usual, who: 'Hob Tarrow', mail: '', phone: '0550 14', place: 'HS', wanted: '', lines: [['40430-02', '2']] },
  {
    ...usual,
    ...{ who: 'Sewing circle of the Weir House', mail: 'circle@weirhouse.example', place: 'HS', wanted: '+9' },
    lines: [
      ['35010-04', '6'],
      ['29000-02', '6'],
    ],
  },
  {
    ...usual,
    who: 'Marigold Finchley-Oster',
    mail: 'marigold@oster.example',
    place: 'OM',
    wanted: '+4',
    lines: [['25100-01', '80']],
  },
  {
    ...usual,
    ...{ who: 'Tamsin Oor', mail: 'tamsin@oor.example', place: 'WY', way: 'from_stock', wanted: '+12' },
    lines: [['22155-02', '45']],
  },
  {
    ...usual,
    who: 'Perrin Valecote',
    mail: 'perrin@valecote.example',
    place: 'HS',
    wanted: '+40',
    lines: [['29330-40', '40']],
  },
  {
    ...usual,
    ...{ who: 'Junia Hartlock', mail: 'junia@hartlock.example', channel: 'web_shop', reference: 'W-1044' },
    ...{ place: 'HS', wanted: '+1', hold: '+2 18:00' },
    lines: [['60010-03', '1']],
  },
];

/** Takes the orders of the demo, and tells one customer. */
export async function takeCustomerOrders(deps: Deps, buyer: Actor): Promise<void> {
  const [items] = await deps.pool.query('SELECT id, number FROM item');
  const ids = new Map((items as { id: number; number: string }[]).map((i) => [i.number, i.id]));
  const [places] = await deps.pool.query('SELECT id, code FROM location');
  const placeIds = new Map((places as { id: number; code: string }[]).map((l) => [l.code, l.id]));
  for (const [n, s] of waiting.entries()) {
    const { orderId } = unwrap(
      await enterCustomerOrder(deps, buyer, {
        key: `seed-customer-order-${n}`,
        input: {
          ...{ customerId: null, customer: { name: s.who, mail: s.mail, phone: s.phone, address: '' } },
          ...{ channel: s.channel, reference: s.reference, delivers: s.delivers, priority: null, note: '' },
          lines: s.lines.map(([number, quantity]) => ({
            ...{ itemId: ids.get(number) ?? 0, packId: null, quantity, locationId: placeIds.get(s.place) ?? 0 },
            ...{ way: s.way, wantedDate: s.wanted, shipBy: '', holdUntil: s.hold },
          })),
        },
      }),
    );
    if (s.who !== 'Marigold Finchley-Oster') continue;
    const input = { orderId, version: 1, how: 'phone' as const, subject: '', body: '' };
    unwrap(await tellCustomer(deps, buyer, { key: 'seed-customer-told', input }));
  }
}
