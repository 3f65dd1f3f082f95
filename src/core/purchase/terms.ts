export type FreightPayer = 'prepaid' | 'collect' | 'third_party';

/** Standing payment terms as an order says them: the supplier's own words where there are any, else days and cash discount;
 *  '' where nothing is agreed. Source: common practice.
 *  @example paymentWords({ words: '', days: 30, discountPercent: '2', discountDays: 14 })  // '14 days 2 %, 30 days net' */
export function paymentWords(t: {
  readonly words: string;
  readonly days: number | null;
  readonly discountPercent: string | null;
  readonly discountDays: number | null;
}): string {
  if (t.words.trim() !== '') return t.words;
  const days = (n: number) => `${n} ${n === 1 ? 'day' : 'days'}`;
  const discount =
    t.discountPercent !== null && t.discountDays !== null && Number(t.discountPercent) > 0
      ? [`${days(t.discountDays)} ${Number(t.discountPercent)} %`]
      : [];
  const net = t.days === null ? [] : [t.days === 0 ? 'at once' : `${days(t.days)} net`];
  return [...discount, ...net].join(', ');
}

const payers: Readonly<Record<FreightPayer, string>> = {
  prepaid: 'freight prepaid',
  collect: 'freight collect',
  third_party: 'freight paid by a third party',
};

/** Standing delivery terms as an order says them: the supplier's own words where there are any, else the Incoterm with its
 *  place and who pays the freight. Source: Incoterms 2020 for the codes, common practice for the rest.
 *  @example deliveryWords({ words: '', incoterm: 'FCA', place: 'Torvaig', payer: 'collect' })  // 'FCA Torvaig, freight collect' */
export function deliveryWords(t: {
  readonly words: string;
  readonly incoterm: string;
  readonly place: string;
  readonly payer: FreightPayer | null;
}): string {
  if (t.words.trim() !== '') return t.words;
  return [`${t.incoterm} ${t.place}`.trim(), t.payer === null ? '' : payers[t.payer]].filter(Boolean).join(', ');
}
