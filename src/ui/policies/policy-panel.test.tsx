import { renderToStaticMarkup } from 'react-dom/server';
import { units } from '@/core/quantity';
import type { PolicyLine } from '@/services/planning/readPolicies';
import type { AdvisedMinimum, PolicyDetail } from '@/services/planning/readPolicyDetail';
import { Format } from '../format';
import { FormatProvider } from '../format-context.client';
import { MayProvider } from '../may-context.client';
import { Advised } from './advised-minimum.client';
import { PolicyBar } from './policy-bar.client';
import { hintWords, PolicyRow } from './policy-row';
import { PolicySettings } from './policy-settings.client';
import type { Draft } from './use-policy-drafts.client';

const format = new Format('en-GB');
const text = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
const shown = (page: React.ReactNode, mayEdit = true) =>
  renderToStaticMarkup(
    <FormatProvider locale="en-GB">
      <MayProvider rights={mayEdit ? ['policies.edit'] : []}>{page}</MayProvider>
    </FormatProvider>,
  );

const line = {
  ...{ itemId: 7, locationId: 1, name: 'Fen merino', location: 'Harbour Street', unit: 'ball', packName: 'bag' },
  ...{ values: { min: '28', max: '76', fixed: '', coverDays: '' }, own: { min: '28' }, hints: [] },
} as unknown as PolicyLine;
const advice: AdvisedMinimum = {
  ...{ method: 'normal', empirical: false, leadTimeDemand: units(25), safety: units(11.5), undershoot: units(1.7) },
  ...{ minimum: units(38.2), undershootVariance: 1.3, days: 10, reviewDays: 0, z: 1.645, clipped: false },
  ...{ rounded: units(40), perDay: units(2.5), sdPerDay: 1.5, leadMean: 10, leadSd: 2, leadFrom: 'measured' },
  ...{ observed: 14, targetThousandths: 950, targetKind: 'cycle_service' },
};
const detail = {
  ...{ supplier: 'Hollinmere', pack: { name: 'bag', micro: units(10) } },
  ...{ values: { trigger: 'at_or_below', supply: 'supplier' }, from: { trigger: 'company', supply: 'none' } },
} as unknown as PolicyDetail;
const advised = (change: Partial<AdvisedMinimum> = {}, draft?: Draft, mayEdit = true) =>
  text(
    shown(
      <Advised {...{ line, draft, detail, format }} advice={{ ...advice, ...change }} onChange={() => undefined} />,
      mayEdit,
    ),
  );

describe('the advised minimum', () => {
  test('each part with the sum it comes from, the method by its formula', () => {
    const said = advised();
    expect(said).toContain('Sold in the lead time 2.5 a day × 10 days, Hollinmere measured, n = 14');
    expect(said).toContain('Safety stock for 95 % of cycles 1.645 × √(10 × 1.5² + 2.5² × 2² + 1.3)');
    expect(said).toContain('Undershoot of a daily look (1.5² + 2.5²) ÷ (2 × 2.5)');
    expect(said).toMatch(/Advised\s+38\.2/);
    expect(said).toContain('rounded up to bags of 10');
    expect(said).toContain('Take this value');
  });

  test('counted by the piece over measured lead times; between order days; by fill rate; less than nothing', () => {
    expect(advised({ z: null, method: 'counts', empirical: true, observed: 90 })).toContain(
      'counted by the piece, over the 60 latest lead times as they were',
    );
    expect(advised({ reviewDays: 7, days: 17, undershoot: 0 })).toContain('17 days (10 + 7 between order days)');
    expect(advised({ undershoot: 0 })).not.toContain('Undershoot');
    expect(advised({ targetKind: 'fill_rate' })).toContain('Safety stock for 95 % handed over at once');
    expect(advised({ clipped: true })).toContain('the target alone asks for less than nothing: none');
    expect(advised({ leadFrom: 'van' })).toContain('on the road');
    expect(advised({ leadFrom: 'stated', observed: 0 })).toContain('Hollinmere as stated');
  });

  test('what is typed already, and who may not take it', () => {
    const draft = { index: 0, itemId: 7, locationId: 1, was: { min: '28' }, now: { min: '40' } };
    const said = advised({}, draft);
    expect(said).toContain('Minimum 40 was 28');
    expect(said).toContain('The minimum is the advised one.');
    expect(advised({}, undefined, false)).not.toContain('Take this value');
  });
});

test('settings that a kind does not use are not there; what is inherited says from where', () => {
  const settings = (kind: PolicyLine['kind'], mayEdit = true) =>
    text(
      shown(
        <PolicySettings {...{ line, draft: undefined, places: [], detail, kind }} onChange={() => undefined} />,
        mayEdit,
      ),
    );
  expect(settings('min_max')).toContain('A need is raised at the level or below, from the company');
  expect(settings('min_max')).not.toContain('Days taken together');
  expect(settings('lot_for_lot')).toContain('Days taken together');
  expect(settings('lot_for_lot')).not.toContain('A need is raised');
  expect(settings('phase_out')).toBe('');
  expect(settings('min_max')).toContain('Reset to what is inherited');
  expect(settings('min_max', false)).not.toContain('Reset to what is inherited');
});

test('hints in words', () => {
  const hinted = {
    ...line,
    hints: [
      { kind: 'less_than_a_pack', between: units(4), pack: units(10) },
      { kind: 'below_lead_time_demand', demand: units(31.26) },
    ],
  } as PolicyLine;
  expect(hintWords(hinted, format)).toBe(
    'less than one bag of 10 between them; 31.3 balls are sold before goods arrive',
  );
});

test('what is changed and not saved: how many cells, what it does, how many faults', () => {
  const drafts = new Map([
    ['7/1', { index: 0, itemId: 7, locationId: 1, was: { min: '28', max: '76' }, now: { min: '30', max: '5' } }],
    ['8/1', { index: 5, itemId: 8, locationId: 1, was: { min: '' }, now: { min: '12' } }],
  ]);
  const effect = {
    needs: { before: 3, after: 4 },
    tied: { before: 100_000, after: 120_050 },
    unpriced: 1,
    faults: [{ row: 0, column: 'min', fault: { kind: 'min_above_max' as const, min: units(30), max: units(5) } }],
  };
  const bar = (change: object) =>
    shown(
      <PolicyBar
        {...{ drafts, effect, currency: 'EUR', busy: false, sentence: null, canGoBack: true }}
        {...change}
        onBack={() => undefined}
        onSave={() => undefined}
      />,
    );
  expect(text(bar({}))).toBe(
    '3 cells changed needs 3 → 4 tied up at max €1,000.00 → €1,200.50 without 1 item of unknown price 1 fault Undo Save what is right',
  );
  expect(text(bar({ effect: null }))).toContain('reckoning what it does …');
  const calm = text(bar({ effect: { ...effect, needs: { before: 3, after: 3 }, faults: [], unpriced: 0 } }));
  expect(calm).toContain('needs 3 tied up');
  expect(calm).toMatch(/Undo Save$/);
  // Nothing that could be saved: every line has a fault.
  expect(bar({ drafts: new Map([...drafts].slice(0, 1)) })).toMatch(/<button[^>]*disabled=""[^>]*>Save what is right/);
});

describe('a line of the sheet', () => {
  const whole = {
    ...line,
    ...{ number: '10412-07', kind: 'min_max', origin: 'location', missing: [], season: false, sentFrom: null },
    ...{ own: { kind: 'min_max', min: '28' }, from: { kind: 'location', min: 'location', max: 'item' } },
    ...{ perDay: units(2.64), coverDays: 4.8, classes: 'AX', need: units(60), needState: 'open', excess: 0 },
  } as unknown as PolicyLine;
  const nothing = () => undefined;
  const row = (change: Partial<PolicyLine> = {}, draft?: Draft, mayEdit = true) =>
    shown(
      <PolicyRow
        {...{ line: { ...whole, ...change }, index: 3, draft, faults: new Map(), format, mayEdit }}
        {...{ selected: () => false, onType: nothing, onPoint: nothing, onDrag: nothing }}
      />,
    );

  test('use per day, how long it lasts, class, and what is needed, over or decided', () => {
    expect(text(row())).toMatch(/Harbour Street .*2\.6 4 AX 60$/);
    expect(text(row({ need: 0, excess: units(12) }))).toMatch(/AX 12 over$/);
    expect(text(row({ needState: 'decided' }))).toMatch(/AX decided$/);
    expect(text(row({ need: 0 }))).toMatch(/AX –$/);
    expect(text(row({ sentFrom: 'Wendel Yard' }))).toContain('Harbour Street from Wendel Yard');
  });

  test('a cell that nobody is at holds the kind in force alone; what is inherited is named, what is not saved is shown', () => {
    const options = (html: string) => [...html.matchAll(/<option[^>]*>([^<]*)</g)].map((m) => m[1]);
    expect(options(row())).toEqual(['min/max']);
    expect(options(row({ own: {}, origin: 'category' }))).toEqual(['min/max']);
    expect(row({ own: {}, origin: 'category' })).toContain('title="from its category"');
    expect(options(row({ locationId: null, own: {} }))).toEqual(['as inherited']);
    const draft = { index: 3, itemId: 7, locationId: 1, was: { kind: 'min_max' }, now: { kind: 'phase_out' } } as Draft;
    expect(options(row({}, draft))).toEqual(['phase-out']);
    expect(row({}, undefined, false)).toMatch(/<select[^>]*disabled=""/);
    expect(text(row({ missing: ['max'] as never }))).toContain('missing');
  });
});
