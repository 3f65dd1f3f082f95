import { renderToStaticMarkup } from 'react-dom/server';
import { reckonPeg } from '@/core/netting';
import { units } from '@/core/quantity';
import type { NeedView } from '@/services/planning/needViews';
import type { WayView } from '@/services/planning/readWays';
import { Format } from '../format';
import { FormatProvider } from '../format-context.client';
import { MayProvider } from '../may-context.client';
import { NeedPanel, Why } from './need-panel.client';
import { cannotAccept, NeedCells, needLabel, type RowState } from './need-row';
import { partsOfWay, slackOfWay } from './ways.client';

const format = new Format('en-GB');
const text = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .replaceAll(' ,', ',')
    .trim();

const step = { fromQuantity: 0, amount: '42', perQuantity: 1, content: { num: '10', den: '1' } };
const bought: NeedView = {
  ...{ id: 9, fingerprint: 'f', open: true, itemId: 7, itemNumber: '10412-07', itemName: 'Fen merino, moss' },
  ...{ buyerNote: '', locationId: 4, location: 'Wendel Yard', unit: 'ball', supplierId: 2, causes: ['below_min'] },
  ...{ sentFrom: null, coverDays: 3, packs: units(6), base: units(60), packName: 'bag', net: 25_200, open: true },
  gauge: {
    ...{ onHand: units(12), free: units(12), coming: 0, inTrays: 0, owed: 0, min: units(28), max: units(76) },
  },
  ...{ content: { num: '10', den: '1' }, currency: 'EUR', rate: null, warnings: [], sourceRule: null },
  ...{ boughtFor: null, runOut: '2026-11-26', arrives: '2026-11-25', slackDays: 1, byHand: null },
  ...{ firstSeen: '2026-11-20 08:00:00', supplier: { id: 2, name: 'Hollinmere Spinners', code: 'HOL' } },
  prices: [{ ...step, from: null, to: null } as never],
};
const sent: NeedView = {
  ...bought,
  ...{ supplierId: null, net: null, prices: [], packName: 'ball', content: { num: '1', den: '1' }, packs: units(8) },
  sentFrom: { locationId: 4, location: 'Wendel Yard', free: units(5) },
};
const pegged: NeedView = {
  ...bought,
  causes: ['shop_asks', 'supply_cut'],
  boughtFor: {
    ...{ kind: 'request', document: 'T2611-0031', href: '/stock/transfers/31' },
    ...{ who: 'Market Hall', straight: false },
  },
};

const reckoning = reckonPeg(
  { asked: units(30), held: units(4), supply: units(10) },
  { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' },
);

describe('what a row says of itself', () => {
  test('item, place, causes, stock and how long it lasts, what is to be done', () => {
    expect(needLabel(bought, '6', format)).toBe(
      'Fen merino, moss, Wendel Yard, below minimum, 12 free · lasts 3 days, order 6 bags',
    );
    expect(needLabel(sent, '1', format)).toContain('send from Wendel Yard 1 ball');
    expect(needLabel(pegged, '2', format)).toContain('Wendel Yard for Market Hall, shop asks, order cut');
    const toCustomer = { ...pegged, boughtFor: { ...pegged.boughtFor, who: 'Ida Falk', straight: true } as const };
    expect(needLabel(toCustomer as NeedView, '2', format)).toContain('Wendel Yard straight to Ida Falk,');
  });

  test('what keeps it from being accepted', () => {
    expect(cannotAccept(bought)).toBeNull();
    expect(cannotAccept(sent)).toBeNull();
    expect(cannotAccept({ ...sent, sentFrom: { locationId: 4, location: 'Wendel Yard', free: 0 } })).toBe(
      'none free there',
    );
    expect(cannotAccept({ ...bought, supplierId: null })).toBe('no supplier yet');
  });
});

describe('the cells of a row', () => {
  const hands = { type: () => {}, accept: () => {} };
  const cells = (need: NeedView, state: RowState = { kind: 'open' }, typed?: string, may = true) =>
    renderToStaticMarkup(
      <FormatProvider locale="en-GB">
        <MayProvider rights={may ? ['needs.decide'] : []}>
          <NeedCells
            {...{
              need,
              index: 0,
              format,
              currency: 'EUR',
              today: '2026-11-23',
              state,
              typed,
              current: true,
              marked: false,
              hands,
            }}
          />
        </MayProvider>
      </FormatProvider>,
    );

  test('packs, what they are in units, and what they cost; another quantity costs another sum', () => {
    expect(text(cells(bought))).toMatch(/bags 60 balls Accept 252\.00/);
    expect(text(cells(bought, { kind: 'open' }, '7'))).toMatch(/bags 70 balls Accept 294\.00/);
    expect(text(cells(bought, { kind: 'open' }, '6.5'))).toContain('not whole bags');
  });

  test('sent over: what is free there, and no price', () => {
    expect(text(cells(sent))).toContain('5 free there Accept sent over');
    expect(cells(sent)).toContain('text-attention');
    expect(cells(sent, { kind: 'open' }, '5')).not.toContain('text-attention');
  });

  test('who may not decide reads the quantity; no price is said', () => {
    const said = text(cells({ ...bought, net: null, prices: [] }, { kind: 'open' }, undefined, false));
    expect(said).not.toContain('Accept');
    expect(said).toContain('no price');
  });

  test('accepted: into which tray, or onto which transfer', () => {
    const tray: RowState = { kind: 'accepted', tray: 'Hollinmere', packs: '6', packName: 'bag', transfer: null };
    expect(text(cells(bought, tray))).toContain('in the Hollinmere tray 6 bags');
    const on = {
      ...tray,
      tray: 'Wendel Yard',
      packs: '8',
      packName: 'ball',
      transfer: { id: 3, number: 'T2611-0003' },
    };
    expect(text(cells(sent, on))).toContain('T2611-0003 from Wendel Yard 8 balls');
    expect(text(cells({ ...bought, open: false }))).toContain('decided or no longer short');
  });

  test('bought for one line: for whom, and that an order was cut', () => {
    const said = text(cells(pegged));
    expect(said).toContain('10412-07 · Wendel Yard for Market Hall');
    expect(said).toContain('shop asks order cut');
  });
});

describe('the panel beside it', () => {
  const panel = (need: NeedView) =>
    text(
      renderToStaticMarkup(
        <FormatProvider locale="en-GB">
          <NeedPanel
            need={need}
            currency="EUR"
            today="2026-11-23"
            ways={{ picking: false, onTake: null, onRead: () => undefined }}
            onMended={() => undefined}
          />
        </FormatProvider>,
      ),
    );

  const why = (need: NeedView, sum: Parameters<typeof Why>[0]['sum']) =>
    text(
      renderToStaticMarkup(
        <FormatProvider locale="en-GB">
          <Why need={need} sum={sum} worth={() => null} />
        </FormatProvider>,
      ),
    );

  test('a line bought one to one: whose request, what is free here meanwhile, and the sum', () => {
    const said = panel(pegged);
    expect(said).toContain('Market Hall asks for it on T2611-0031 : bought one to one');
    expect(said).toContain('12 are free here: approving the request would send from those.');
    const sum = why(pegged, { reckoning });
    expect(sum).toContain('Why 16');
    expect(sum).toContain('To buy exactly the line, one to one 16');
    expect(why(pegged, { reckoning: null })).toContain('Nobody asks for it any more.');
    expect(why(pegged, null)).toContain('Loading');
    expect(why(pegged, 'failed')).toContain('Could not be read just now.');
  });

  test('what is in the way is said in a sentence each', () => {
    expect(why(bought, { reckoning: null })).toContain('No policy that refills is in force here.');
    expect(panel({ ...bought, warnings: ['no_supplier'] })).toContain('No supplier sells this item yet');
    expect(panel({ ...bought, warnings: ['supplier_blocked'] })).toContain('Hollinmere Spinners is blocked.');
    expect(panel({ ...bought, warnings: ['no_price'] })).toContain('No price on file: it can be ordered');
    expect(panel(sent)).toContain('Sent from Wendel Yard: 5 free there.');
  });
});

describe('a way', () => {
  const way: WayView = {
    deliveries: [
      {
        ...{ sourceId: 4, locationId: null, name: 'Hollinmere Spinners', packs: units(6), packName: 'bag' },
        ...{ base: units(60), arrives: '2026-12-01' },
      },
    ],
    ...{ slackDays: -4, cash: 19_680, each: 328, overshoot: units(6), goodsAndCharges: 17_712 },
    ...{ order: 0, carrying: 12, short: 8, shortCost: 2400, total: 20_124, sharedBy: 3, shown: true },
  };
  test('says each part that is not 0, and how it stands to the day stock runs out', () => {
    expect(partsOfWay(way, new Format('en-GB'), 'EUR')).toBe(
      'goods and charges 177.12 + carrying 0.12 + 8 not sold 24.00',
    );
    expect(partsOfWay({ ...way, order: 250, carrying: 0, shortCost: 0 }, new Format('en-GB'), 'EUR')).toBe(
      'goods and charges 177.12 + order 2.50',
    );
    expect(partsOfWay({ ...way, short: 0, shortCost: 140 }, new Format('en-GB'), 'EUR')).toContain(
      'under 1 not sold 1.40',
    );
    expect([-4, -1, 0, 3, null].map((slackDays) => slackOfWay({ slackDays }))).toEqual([
      ...['4 days too late', '1 day too late', 'just in time', '3 days to spare', ''],
    ]);
  });
});
