import type { BusinessDate } from '@/core/calendar';
import type { Minor } from '@/core/money';
import type { Quantity } from '@/core/quantity';
import type { LineDifference } from './differences';

/** A delivery as it stands on paper. */
export type PaperPart = {
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly date: BusinessDate | null;
  /** Where it goes: a place of ours, or a customer; with its own address where it is not that of the head. */
  readonly place: string;
  readonly address: string;
};

/** A line as it stands on paper: all three numbers, packs and base units, the price as it was agreed. */
export type PaperLine = {
  readonly lineNo: number;
  readonly description: string;
  readonly edition: string;
  readonly theirNumber: string;
  readonly ourNumber: string;
  readonly makersNumber: string;
  readonly packName: string;
  readonly unit: string;
  readonly parts: readonly PaperPart[];
  /** Decimal text per `per` packs; null = none. */
  readonly price: string | null;
  readonly per: string;
  readonly freeOfCharge: boolean;
  /** Taken off the line, in percent; '0' = nothing. */
  readonly discount: string;
  readonly net: Minor;
  readonly note: string;
  /** What it was bought for: customers' orders, places' requests. */
  readonly references: readonly string[];
};

/** What can be left out of a paper. */
export const paperColumns = [
  'their_number',
  'our_number',
  'makers_number',
  'base_quantity',
  'references',
  'barcode',
] as const;
export type PaperColumn = (typeof paperColumns)[number];

/** Languages that papers are set in. */
export const paperLanguages = ['en', 'de', 'fr'] as const;
export type PaperLanguage = (typeof paperLanguages)[number];
/** The language of a paper for a supplier's; '' and what papers are not set in: English. */
export const paperLanguageOf = (language: string): PaperLanguage =>
  paperLanguages.find((l) => l === language.trim().toLowerCase().slice(0, 2)) ?? 'en';

/** How papers are set up: what stands at the head and the foot, what is left out, and texts around the lines by language. */
export type PaperSetup = {
  /** In place of the company's name and address; '' = these. */
  readonly letterhead: string;
  /** Under every page. */
  readonly foot: string;
  readonly hides: readonly PaperColumn[];
  readonly texts: Readonly<Record<PaperLanguage, { readonly opening: string; readonly closing: string }>>;
};

/** A purchase order as its supplier gets it on paper. */
export type OrderPaper = {
  readonly number: string;
  /** Which change of it this is; 0 = the order itself. */
  readonly amendment: number;
  readonly changes: readonly LineDifference[];
  readonly orderDate: BusinessDate;
  /** The supplier's language as on file; '' = ours. */
  readonly language: string;
  readonly currency: string;
  readonly buyer: { readonly name: string; readonly address: string };
  readonly supplier: string;
  readonly deliverTo: readonly { readonly name: string; readonly address: string }[];
  readonly invoiceTo: string;
  readonly payment: string;
  readonly delivery: string;
  readonly shippingWay: string;
  readonly contact: string;
  readonly approvedBy: string;
  readonly text: string;
  readonly setup: PaperSetup;
  readonly lines: readonly PaperLine[];
  readonly net: Minor;
  /** Charges and allowances on the supplier's bill. */
  readonly charges: readonly { readonly name: string; readonly minor: Minor }[];
  /** Tax on it; none where it is not the supplier that is paid it. */
  readonly taxes: readonly { readonly percent: string; readonly taxable: Minor; readonly tax: Minor }[];
  readonly total: Minor;
};

/** What stands at the head of a paper: the letterhead, else the company's name and address, its name once. */
export function letterheadOf({ setup, buyer }: Pick<OrderPaper, 'setup' | 'buyer'>): string {
  if (setup.letterhead.trim() !== '') return setup.letterhead;
  const [first] = buyer.address.split('\n');
  return first?.trim() === buyer.name ? buyer.address : `${buyer.name}\n${buyer.address}`;
}

/** Letters that the paper's typeface has: Latin, Greek, Cyrillic, and what belongs to every script. */
const PRINTABLE = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Common}\p{Script=Inherited}]/u;

/** The letters of a text that can't be set on paper, each once; they stay in the data and are printed as a visible substitute.
 *  @example unprintable('株式会社 Ishimura')  // ['株', '式', '会', '社'] */
export const unprintable = (text: string): string[] => [...new Set([...text].filter((c) => !PRINTABLE.test(c)))];
