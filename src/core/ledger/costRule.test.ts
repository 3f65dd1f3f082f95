import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { units } from '@/core/quantity';
import {
  backDatedEffect,
  issue,
  type LedgerEntry,
  type LevelValue,
  receive,
  removeAtValue,
  replayByDate,
  spreadLateCharge,
  stillThere,
} from '.';

type Line = { step: string; place: string; quantity: number; value: number; cost: number; variance: number };
type Row = Line & { onHand: number; worth: number; company: number };

/** The table of docs/cost-rule.md: quantities in units, money in minor units. */
function tableOfDocs(): Row[] {
  const text = readFileSync(join(__dirname, '..', '..', '..', 'docs', 'cost-rule.md'), 'utf8');
  const cells = text
    .split('\n')
    .filter((l) => /^\| \d/.test(l))
    .map((l) =>
      l
        .split('|')
        .slice(1, -1)
        .map((c) => c.trim()),
    );
  const minor = (c: string | undefined) => Math.round(Number(c) * 100);
  return cells.map(([step = '', , place = '', quantity, value, cost, variance, onHand, worth, company]) => ({
    step,
    place,
    quantity: Number(quantity),
    value: minor(value),
    cost: minor(cost),
    variance: minor(variance),
    onHand: Number(onHand),
    worth: minor(worth),
    company: minor(company),
  }));
}

/** The same story through the functions of the ledger. */
function played(): { rows: Row[]; cameIn: number } {
  const levels = new Map<string, LevelValue>();
  const at = (place: string): LevelValue => levels.get(place) ?? { quantity: 0, value: 0 };
  const rows: Row[] = [];
  let cameIn = 0;
  const post = (
    step: string,
    place: string,
    posted: { level: LevelValue; valueChange: number; variance: number },
    external: number,
  ) => {
    const quantity = (posted.level.quantity - at(place).quantity) / 1e6;
    levels.set(place, posted.level);
    cameIn += external;
    const { valueChange: value, variance } = posted;
    const company = [...levels.values()].reduce((sum, l) => sum + l.value, 0);
    const { quantity: onHand, value: worth } = posted.level;
    // Between places of the company value moves without cost.
    const cost = Number.isNaN(external) ? 0 : external - value - variance;
    rows.push({ step, place, quantity, value, cost, variance, onHand: onHand / 1e6, worth, company });
    return posted;
  };
  const lastCost = { quantity: units(10), value: 2000 };

  post('1', 'OM', receive(at('OM'), units(10), 2000), 2000);
  const sale = post('2', 'OM', issue(at('OM'), units(15), lastCost), 0);
  post('3', 'OM', receive(at('OM'), units(20), 5200), 5200);

  const entries: LedgerEntry[] = [
    { businessDate: '2026-11-02', posting: 1, quantity: units(10), valued: 'given', value: 2000 },
    { businessDate: '2026-11-05', posting: 2, quantity: units(-15), valued: 'average', value: 0 },
    { businessDate: '2026-11-03', posting: 3, quantity: units(20), valued: 'given', value: 5200 },
  ];
  const effect = backDatedEffect(at('OM'), replayByDate({ quantity: 0, value: 0 }, entries));
  const value = (level: LevelValue, change: { valueChange: number; variance: number }) => ({
    ...change,
    level: { ...level, value: level.value + change.valueChange },
  });
  post('3a', 'OM', value(at('OM'), effect), 0);

  const inTransit = (posted: { valueChange: number }) => Math.abs(posted.valueChange);
  const before = at('OM').quantity;
  const shipped = post('4', 'OM', issue(at('OM'), units(5), lastCost), Number.NaN);
  cameIn = 7200;
  post('4a', 'transit', receive(at('transit'), units(5), inTransit(shipped)), Number.NaN);
  post('4b', 'transit', removeAtValue(at('transit'), units(5), inTransit(shipped)), Number.NaN);
  post('4c', 'MH', receive(at('MH'), units(5), inTransit(shipped)), Number.NaN);
  cameIn = 7200;

  const there = stillThere(
    { place: 'OM', quantity: units(20) },
    [
      { kind: 'sent', place: 'OM', shipment: 'T1', quantity: units(5), onHandBefore: before },
      { kind: 'arrived', place: 'MH', shipment: 'T1', quantity: units(5) },
    ],
    (place) => at(place).quantity,
  );
  const freight = spreadLateCharge(700, units(20), there);
  const share = (place: string) => freight.shares.get(place) as number;
  post(
    '5',
    'OM',
    value(at('OM'), { valueChange: share('OM'), variance: freight.variance }),
    share('OM') + freight.variance,
  );
  post('5a', 'MH', value(at('MH'), { valueChange: share('MH'), variance: 0 }), share('MH'));

  post('6', 'OM', removeAtValue(at('OM'), units(10), 2000), -2000);
  post('7', 'OM', receive(at('OM'), units(3), Math.round((-sale.valueChange * 3) / 15)), 0);
  post('8', 'OM', issue(at('OM'), units(3), lastCost), 0);
  post('8a', 'MH', issue(at('MH'), units(5), lastCost), 0);
  return { rows, cameIn };
}

test('every line of docs/cost-rule.md is what the functions give', () => {
  expect(played().rows).toEqual(tableOfDocs());
});

test('the company’s total is conserved: what came in is on hand, cost or variance; a transfer changes nothing', () => {
  const { rows, cameIn } = played();
  const sum = (column: 'value' | 'cost' | 'variance') => rows.reduce((s, r) => s + r[column], 0);
  expect(sum('value')).toBe(0);
  expect(sum('cost') + sum('variance')).toBe(cameIn);
  expect(cameIn).toBe(5900);
  const company = (step: string) => rows.find((r) => r.step === step)?.company;
  expect(company('4c')).toBe(company('3a'));
});
