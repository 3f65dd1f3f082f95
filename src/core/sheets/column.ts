import { countryCode, hsCode, unNumber } from '@/core/codes';
import { isCurrency } from '@/core/money';
import { err, ok, type Result } from '@/core/result';
import { unitsByCode } from '@/core/units';
import { cellDate } from './dates';
import type { CellFault, CodeKind, Conventions } from './faults';
import { cellNumber } from './numbers';

/** A value of a cell once it is understood: text and decimals as text, whole numbers, yes and no; null = empty. */
export type Value = string | number | boolean | null;
export type Values = Readonly<Record<string, Value>>;

/** A column of a template. `read` is given what stands in the cell, trimmed and not empty. */
export type Column = {
  readonly key: string;
  readonly title: string;
  /** One line for the person who fills the template in. */
  readonly explain: string;
  readonly example: string;
  readonly kind: 'text' | 'number' | 'date' | 'choice' | 'yes_no';
  /** The words of a choice, in their order; the most characters of a text. */
  readonly choices?: readonly string[];
  readonly most?: number;
  readonly required: boolean;
  /** Other headings it is known under. */
  readonly aliases: readonly string[];
  /** What a new row gets when the column is not in the file or its cell is empty; null also where a row is emptied. */
  readonly otherwise: Value;
  readonly read: (text: string, how: Conventions) => Result<Value, CellFault>;
  /** The value as it stands in a file: what `read` reads back as the same. */
  readonly write: (value: Exclude<Value, null>, how: Conventions) => string;
};

type About = {
  readonly title: string;
  readonly explain: string;
  readonly example: string;
  readonly required?: boolean;
  readonly aliases?: readonly string[];
  readonly otherwise?: Value;
};

const column = (
  key: string,
  kind: Column['kind'],
  about: About,
  rest: Pick<Column, 'read' | 'write' | 'choices' | 'most'>,
): Column => ({
  key,
  kind,
  title: about.title,
  explain: about.explain,
  example: about.example,
  required: about.required ?? false,
  aliases: about.aliases ?? [],
  otherwise: about.otherwise ?? null,
  ...rest,
});

const asText = (value: Exclude<Value, null>) => String(value);
// biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is looked for.
const unprintable = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\ufffd]/;

/** A text of at most so many characters; an empty one is kept as empty text. */
export const textColumn = (key: string, most: number, about: About): Column =>
  column(
    key,
    'text',
    { otherwise: about.required ? null : '', ...about },
    {
      read: (text) => {
        if (unprintable.test(text)) return err({ kind: 'unprintable' });
        return text.length > most ? err({ kind: 'too_long', most }) : ok(text.replace(/\r\n?/g, '\n'));
      },
      write: asText,
      most,
    },
  );

const inRange = (value: string, least: number, most: number): Result<string, CellFault> =>
  Number(value) < least || Number(value) > most
    ? err({ kind: 'out_of_range', least: String(least), most: String(most) })
    : ok(value);

/** A decimal between two bounds, with at most so many decimals; kept as decimal text. */
export const decimalColumn = (
  key: string,
  { least = 0, most, decimals = 6 }: { least?: number; most: number; decimals?: number },
  about: About,
): Column =>
  column(key, 'number', about, {
    read: (text, how) => {
      const n = cellNumber(text, how.decimal, decimals);
      return n.ok ? inRange(n.value, least, most) : n;
    },
    write: (value, how) => asText(value).replace('.', how.decimal),
  });

/** An amount of money; a single decimal is written with its zero. @example write('39.9')  // '39.90' */
export const moneyColumn = (...described: Parameters<typeof decimalColumn>): Column => {
  const plain = decimalColumn(...described);
  return { ...plain, write: (value, how) => plain.write(value, how).replace(/([.,]\d)$/, '$10') };
};

/** A whole number between two bounds. */
export const wholeColumn = (key: string, { least = 0, most }: { least?: number; most: number }, about: About): Column =>
  column(key, 'number', about, {
    read: (text, how) => {
      const n = cellNumber(text, how.decimal, 0);
      const bounded = n.ok ? inRange(n.value, least, most) : n;
      return bounded.ok ? ok(Number(bounded.value)) : bounded;
    },
    write: asText,
  });

export const dateColumn = (key: string, about: About): Column =>
  column(key, 'date', about, { read: (text, how) => cellDate(text, how.dates), write: asText });

/** One of some words, each kept under a short name; capitals and word breaks don't matter. */
export const choiceColumn = (key: string, choices: Readonly<Record<string, string>>, about: About): Column => {
  const plain = (text: string) => text.toLowerCase().replace(/[\s_-]+/g, ' ');
  const byWord = new Map<string, string>();
  for (const [value, word] of Object.entries(choices)) byWord.set(plain(value), value).set(plain(word), value);
  return column(key, 'choice', about, {
    read: (text) => {
      const value = byWord.get(plain(text));
      return value === undefined ? err({ kind: 'not_one_of', choices: Object.values(choices) }) : ok(value);
    },
    write: (value) => choices[asText(value)] ?? asText(value),
    choices: Object.values(choices),
  });
};

/** Yes or no, also 1 and 0, true and false, x. */
export const yesNoColumn = (key: string, about: About): Column =>
  column(key, 'yes_no', about, {
    read: (text) => {
      const word = text.toLowerCase();
      if (['yes', 'y', 'true', '1', 'x'].includes(word)) return ok(true);
      return ['no', 'n', 'false', '0'].includes(word) ? ok(false) : err({ kind: 'not_one_of', choices: ['yes', 'no'] });
    },
    write: (value) => (value ? 'yes' : 'no'),
  });

const codes: Readonly<Record<Exclude<CodeKind, 'gtin' | 'hs_prefix'>, (text: string) => string | null>> = {
  unit: (text) => {
    const code = text.toUpperCase();
    if (unitsByCode.has(code)) return code;
    // The name or the sign of a unit is understood as well, where only one unit has it.
    const named = [...unitsByCode.values()].filter((u) => u.symbol === text || u.name === text.toLowerCase());
    return named.length === 1 ? (named[0]?.code as string) : null;
  },
  currency: (text) => (isCurrency(text.toUpperCase()) ? text.toUpperCase() : null),
  country: countryCode,
  hs: hsCode,
  un_number: unNumber,
  incoterm: (text) => (incoterms.includes(text.toUpperCase()) ? text.toUpperCase() : null),
  mail: (text) => (/^[^\s@<>,;]+@[^\s@<>,;]+$/.test(text) && text.length <= 200 ? text : null),
};

/** Incoterms 2020. Source: International Chamber of Commerce, from memory. */
export const incoterms: readonly string[] = 'EXW FCA FAS FOB CFR CIF CPT CIP DAP DPU DDP'.split(' ');

/** A code of some list: a unit of UN/ECE Rec. 20, a currency of ISO 4217, a country, an HS code, a UN number, an Incoterm, a
 *  mail address. */
export const codeColumn = (key: string, what: Exclude<CodeKind, 'gtin' | 'hs_prefix'>, about: About): Column =>
  column(
    key,
    'text',
    { otherwise: about.required ? null : '', ...about },
    {
      read: (text) => {
        const code = codes[what](text);
        return code === null ? err({ kind: 'no_such_code', what }) : ok(code);
      },
      write: asText,
    },
  );
