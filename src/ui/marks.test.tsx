import { renderToStaticMarkup } from 'react-dom/server';
import { reckon } from '@/core/netting';
import { units } from '@/core/quantity';
import { Format } from './format';
import { FillGauge } from './marks/fill-gauge';
import { gaugeWords, LevelStrip } from './marks/level-strip';
import { OrderTrack, orderWords } from './marks/order-track';
import { courseWords, StockCourse } from './marks/stock-course';
import { ReckoningSum } from './reckoning/reckoning';

const format = new Format('en-GB');
const gauge = (change = {}) => ({
  onHand: units(12),
  free: units(12),
  coming: units(10),
  inTrays: 0,
  owed: 0,
  min: units(28),
  max: units(76),
  ...change,
});
const rects = (html: string) => html.match(/<rect x=/g)?.length ?? 0;

describe('level strip', () => {
  test('says in words what it draws', () => {
    expect(gaugeWords(gauge({ owed: units(4), inTrays: units(60) }), format)).toBe(
      '12 free · 4 owed · 10 coming · 60 in trays',
    );
    const html = renderToStaticMarkup(<LevelStrip gauge={gauge()} format={format} id="a" />);
    expect(html).toContain('aria-label="12 free · 10 coming, minimum 28, maximum 76"');
    expect(html).toContain('url(#hatch-a)');
  });

  test('free ink, hatching for what comes, brick left of zero for what is missing; nothing where there is nothing', () => {
    expect(rects(renderToStaticMarkup(<LevelStrip gauge={gauge()} format={format} id="a" />))).toBe(2);
    expect(
      rects(renderToStaticMarkup(<LevelStrip gauge={gauge({ free: 0, coming: 0 })} format={format} id="a" />)),
    ).toBe(0);
    const negative = renderToStaticMarkup(
      <LevelStrip gauge={gauge({ free: units(-2), onHand: units(-2), coming: 0 })} format={format} id="a" />,
    );
    expect(negative).toContain('fill-stop');
    expect(negative).toContain('−2 free');
  });

  test('without a policy there are no notches', () => {
    const html = renderToStaticMarkup(<LevelStrip gauge={gauge({ min: null, max: null })} format={format} id="a" />);
    expect(html).not.toContain('<path');
    expect(html).not.toContain('minimum');
  });

  test('everything drawn lies within the strip', () => {
    for (const q of [0, 1, 50, 500]) {
      const html = renderToStaticMarkup(
        <LevelStrip gauge={gauge({ free: units(q), coming: units(q * 3), owed: units(q) })} format={format} id="a" />,
      );
      for (const [, x, width] of html.matchAll(/<rect x="([\d.]+)"[^>]*? width="([\d.]+)"/g)) {
        expect(Number(x) + Number(width)).toBeLessThanOrEqual(150.001);
      }
    }
  });
});

describe('order track', () => {
  const filled = (html: string) => html.match(/"fill-ink stroke-ink"/g)?.length ?? 0;
  test.each([
    ['draft', 'nothing', 1, 'drafted'],
    ['approved', 'nothing', 2, 'approved'],
    ['sent', 'nothing', 3, 'sent'],
    ['sent', 'part', 3, 'part received'],
    ['sent', 'all', 4, 'received'],
    ['cancelled', 'nothing', 0, 'cancelled'],
    ['put_back', 'nothing', 0, 'back in its trays'],
  ] as const)('%s, %s', (state, came, segments, words) => {
    expect(filled(renderToStaticMarkup(<OrderTrack state={state} came={came} />))).toBe(segments);
    expect(orderWords(state, came)).toBe(words);
  });
});

test('the gauge towards a minimum ends at the minimum', () => {
  const width = (value: number, target: number) =>
    /<rect width="([\d.]+)" height="5" class="fill-ink"/.exec(
      renderToStaticMarkup(<FillGauge value={value} target={target} label="x" />),
    )?.[1];
  expect([width(0, 400), width(200, 400), width(900, 400), width(5, 0)]).toEqual(['0', '45', '90', '90']);
});

describe('reckoning', () => {
  const policy = {
    rule: 'level' as const,
    kind: 'min_max' as const,
    level: units(28),
    refillTo: units(76),
    max: units(76),
    trigger: 'at_or_below' as const,
    fixed: 0,
    terms: [{ label: 'refill_to_max' as const, quantity: units(76) }],
  };
  const rule = { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' as const };
  const print = (parts = {}, change = {}) => {
    const sum = reckon(
      { onHand: units(12), blocked: 0, onTheWay: units(10), inTrays: 0, owed: 0, planned: 0, ...parts },
      policy,
      {
        ...rule,
        ...change,
      },
    );
    const html = renderToStaticMarkup(
      <ReckoningSum sum={sum} format={format} origins={{}} unit="ball" packName="bag" />,
    );
    return html
      .replace(/<[^>]+>/g, ' ')
      .replace(/\s+/g, ' ')
      .trim();
  };

  test('is the sum as on paper', () => {
    expect(print()).toBe(
      'Refill to maximum 76 − On hand 12 − On the way 10 To buy position 22 is at or below minimum 28 54 Whole bags of 10 6 balls more than needed 60',
    );
  });

  test('shows blocked, owed and trays when they count, and negative stock as an addition', () => {
    const text = print({ onHand: units(-2), blocked: units(1), owed: units(4), inTrays: units(5) });
    expect(text).toContain('+ On hand, below zero 2');
    expect(text).toContain('+ Blocked 1');
    expect(text).toContain('− In trays and drafts 5');
    expect(text).toContain('+ Owed by the horizon 4');
  });

  test('the supplier’s least quantity is a step of its own', () => {
    expect(print({}, { minimum: units(100) })).toContain(
      'Supplier’s least quantity 46 balls more than needed 100 Whole bags of 10 fits exactly 100',
    );
  });

  test('nothing to buy says why', () => {
    expect(print({ onHand: units(40) })).toContain('Nothing to buy: position 50 is above minimum 28.');
  });
});

describe('course of stock', () => {
  const course = {
    from: '2026-11-20',
    today: '2026-11-23',
    days: [units(40), units(-3), units(20), units(12)],
    min: units(28),
    max: units(76),
    expected: [
      { date: '2026-11-16', quantity: units(4) },
      { date: '2026-11-30', quantity: units(10) },
    ],
    perDay: units(2),
    coverDays: 6,
    arrives: '2026-12-01',
  };
  const draw = (change = {}) =>
    renderToStaticMarkup(<StockCourse course={{ ...course, ...change }} unit="balls" format={format} />);

  test('says in words what it draws', () => {
    expect(courseWords(course, 'balls', format)).toBe(
      '40 on Fri 20 Nov, 12 balls today; minimum 28; maximum 76; 4 expected Mon 16 Nov; 10 expected Mon 30 Nov; an order of today would arrive Tue 1 Dec',
    );
  });

  test('a step for each day, brick only when it was below zero, hatching for each that is expected', () => {
    const html = draw();
    expect(html.match(/ d="(M[^"]+)"/)?.[1]?.match(/h/g)).toHaveLength(4);
    expect(html).toContain('stroke-stop');
    expect(html.match(/url\(#course-hatch\)/g)).toHaveLength(2);
    expect(draw({ days: [units(4)] })).not.toContain('stroke-stop');
  });

  test('all of it lies within the drawing, whatever the stock', () => {
    for (const q of [-500, 0, 3, 5000]) {
      const html = draw({ days: [units(q), units(12)], expected: [{ date: '2027-02-01', quantity: units(900) }] });
      for (const [, at] of html.matchAll(/ y[12]?="([-\d.]+)"/g)) {
        expect(Number(at)).toBeGreaterThanOrEqual(0);
        expect(Number(at)).toBeLessThanOrEqual(128);
      }
      for (const [, at] of html.matchAll(/ x[12]?="([-\d.]+)"/g)) expect(Number(at)).toBeLessThanOrEqual(344);
    }
  });

  test('figures that would stand on each other leave one out', () => {
    expect(draw({ min: units(1) }).match(/text-anchor="end" class="fill-muted/g)).toHaveLength(2);
  });
});
