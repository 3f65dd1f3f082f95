import { decimalFraction, type Fraction, fraction } from './fraction';

export type Dimension = 'length' | 'area' | 'volume' | 'mass' | 'time' | 'count';

/** A unit of measure under its UN/ECE Recommendation 20 code; factor = how many of the dimension's
 *  reference unit (metre, square metre, cubic metre, kilogram, second, one) it holds, exactly. */
export type Unit = {
  readonly code: string;
  readonly name: string;
  readonly symbol: string;
  readonly dimension: Dimension;
  readonly factor: Fraction;
};

const unit = (code: string, name: string, symbol: string, dimension: Dimension, factor: string | Fraction): Unit => ({
  code,
  name,
  symbol,
  dimension,
  factor: typeof factor === 'string' ? decimalFraction(factor) : factor,
});

// US gallon = 231 cubic inches; Imperial gallon = 4.54609 l (Weights and Measures Act 1985, schedule 1).
const usGallon = fraction(231n * 254n ** 3n, 10n ** 12n);
const imperialGallon = decimalFraction('0.00454609');
const part = (whole: Fraction, n: number) => fraction(whole.num, whole.den * BigInt(n));

/** Factors: international yard and pound agreement (1959), exact by definition; SI. Codes from memory. */
const table: readonly Unit[] = [
  unit('MTR', 'metre', 'm', 'length', '1'),
  unit('KMT', 'kilometre', 'km', 'length', '1000'),
  unit('CMT', 'centimetre', 'cm', 'length', '0.01'),
  unit('MMT', 'millimetre', 'mm', 'length', '0.001'),
  unit('INH', 'inch', 'in', 'length', '0.0254'),
  unit('FOT', 'foot', 'ft', 'length', '0.3048'),
  unit('YRD', 'yard', 'yd', 'length', '0.9144'),
  unit('SMI', 'mile (statute)', 'mi', 'length', '1609.344'),
  unit('MTK', 'square metre', 'm²', 'area', '1'),
  unit('CMK', 'square centimetre', 'cm²', 'area', '0.0001'),
  unit('INK', 'square inch', 'in²', 'area', '0.00064516'),
  unit('FTK', 'square foot', 'ft²', 'area', '0.09290304'),
  unit('YDK', 'square yard', 'yd²', 'area', '0.83612736'),
  unit('MTQ', 'cubic metre', 'm³', 'volume', '1'),
  unit('LTR', 'litre', 'l', 'volume', '0.001'),
  unit('CLT', 'centilitre', 'cl', 'volume', '0.00001'),
  unit('MLT', 'millilitre', 'ml', 'volume', '0.000001'),
  unit('CMQ', 'cubic centimetre', 'cm³', 'volume', '0.000001'),
  unit('INQ', 'cubic inch', 'in³', 'volume', '0.000016387064'),
  unit('FTQ', 'cubic foot', 'ft³', 'volume', '0.028316846592'),
  unit('GLL', 'gallon (US)', 'gal', 'volume', usGallon),
  unit('QTL', 'liquid quart (US)', 'qt', 'volume', part(usGallon, 4)),
  unit('PTL', 'liquid pint (US)', 'pt', 'volume', part(usGallon, 8)),
  unit('OZA', 'fluid ounce (US)', 'fl oz', 'volume', part(usGallon, 128)),
  unit('GLI', 'gallon (UK)', 'gal (UK)', 'volume', imperialGallon),
  unit('PTI', 'pint (UK)', 'pt (UK)', 'volume', part(imperialGallon, 8)),
  unit('OZI', 'fluid ounce (UK)', 'fl oz (UK)', 'volume', part(imperialGallon, 160)),
  unit('KGM', 'kilogram', 'kg', 'mass', '1'),
  unit('GRM', 'gram', 'g', 'mass', '0.001'),
  unit('MGM', 'milligram', 'mg', 'mass', '0.000001'),
  unit('TNE', 'tonne', 't', 'mass', '1000'),
  unit('LBR', 'pound', 'lb', 'mass', '0.45359237'),
  unit('ONZ', 'ounce (avoirdupois)', 'oz', 'mass', fraction(45359237n, 1_600_000_000n)),
  unit('STN', 'ton (US, short)', 'ton (US)', 'mass', '907.18474'),
  unit('LTN', 'ton (UK, long)', 'ton (UK)', 'mass', '1016.0469088'),
  unit('SEC', 'second', 's', 'time', '1'),
  unit('MIN', 'minute', 'min', 'time', '60'),
  unit('HUR', 'hour', 'h', 'time', '3600'),
  unit('DAY', 'day', 'd', 'time', '86400'),
  unit('C62', 'one', '', 'count', '1'),
  unit('H87', 'piece', 'piece', 'count', '1'),
  unit('EA', 'each', 'each', 'count', '1'),
  unit('PR', 'pair', 'pair', 'count', '2'),
  unit('DZN', 'dozen', 'dozen', 'count', '12'),
  unit('GRO', 'gross', 'gross', 'count', '144'),
  unit('RM', 'ream', 'ream', 'count', '500'),
];

export const unitsByCode: ReadonlyMap<string, Unit> = new Map(table.map((u) => [u.code, u]));

/** Units that a shop keeps most of its goods in, to choose from first. */
export const commonUnits: readonly Unit[] = [
  'H87',
  'MTR',
  'KGM',
  'GRM',
  'LTR',
  'PR',
  'DZN',
  'YRD',
  'MTK',
  'HUR',
].flatMap((code) => unitsByCode.get(code) ?? []);
