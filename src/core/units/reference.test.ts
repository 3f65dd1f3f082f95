import Fraction from 'fraction.js';
import { cascade, roundToStep } from '@/core/packs';
import { fromDecimal, toDecimal } from '@/core/quantity';
import reference from '../../../tests/reference/units.json';
import { conversionFactor, decimalFraction, fraction, times, unitsByCode } from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; input: any; expected: any };
const cases = reference.cases as unknown as Case[];
const of = (kind: string) => cases.filter((c) => c.kind === kind).map((c) => [c.id, c] as const);
const text = (f: { num: bigint; den: bigint }) => `${f.num}/${f.den}`;

// Source: tests/reference/units.json: exact definitions (international yard and pound 1959, US gallon 231 cubic inches,
// Imperial gallon 4.54609 l), checked there with pint 0.19.2 and GNU units 2.22; codes of UN/ECE Rec. 20 from memory.
describe('units reference', () => {
  test.each(of('convert'))('%s', (_, { input, expected }) => {
    const factor = conversionFactor(input.from, input.to);
    if (expected.error) {
      expect(factor).toEqual({ ok: false, error: { kind: 'no_conversion', from: input.from, to: input.to } });
      return;
    }
    if (!factor.ok) throw new Error(factor.error.kind);
    expect(new Fraction(text(factor.value)).equals(new Fraction(expected.factor))).toBe(true);
    const value = times(factor.value, decimalFraction(input.quantity));
    expect(new Fraction(text(value)).equals(new Fraction(expected.value))).toBe(true);
    expect(Number(value.num) / Number(value.den)).toBeCloseTo(expected.decimal, 9);
  });

  test.each(of('unit_code'))('%s', (_, { input, expected }) => {
    const unit = unitsByCode.get(input.code);
    expect({ name: unit?.name, dimension: unit?.dimension }).toEqual({
      name: expected.name,
      dimension: expected.dimension,
    });
    const factor = expected.factor_to_si ?? expected.factor_to_one;
    expect(new Fraction(text(unit?.factor ?? fraction(0)))).toEqual(new Fraction(factor));
  });

  test.each(of('round_to_pack'))('%s', (_, { input, expected }) => {
    const pack = fromDecimal(input.pack);
    const q = roundToStep(fromDecimal(input.quantity), pack, input.mode);
    expect({ packs: q / pack, quantity: toDecimal(q) }).toEqual({
      packs: expected.packs,
      quantity: toDecimal(fromDecimal(expected.quantity)),
    });
  });

  test.each(of('cascade'))('%s', (_, { input, expected }) => {
    const content = input.case as number;
    const quantity = roundToStep(fromDecimal(input.quantity), content * 1_000_000, 'up') / 1_000_000;
    const layers = cascade(quantity / content, input.cases_per_pallet);
    expect({
      cases: quantity / content,
      quantity,
      full_pallets: layers.full,
      loose_cases: layers.loose,
      pallets_if_rounded_up: layers.roundedUp / input.cases_per_pallet,
      cases_if_pallets_rounded_up: layers.roundedUp,
    }).toEqual(expected);
  });

  test('every case of the file is of a kind tested here', () => {
    expect([...new Set(cases.map((c) => c.kind))].sort()).toEqual(['cascade', 'convert', 'round_to_pack', 'unit_code']);
  });
});

describe('codes', () => {
  test('an unknown code is said, not guessed', () => {
    expect(conversionFactor('XXX', 'MTR')).toEqual({ ok: false, error: { kind: 'unknown_unit', code: 'XXX' } });
    expect(conversionFactor('MTR', 'YYY')).toEqual({ ok: false, error: { kind: 'unknown_unit', code: 'YYY' } });
  });
});
