import type { Price } from '@/core/money';
import type { TotalLine } from '@/core/purchase';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { breakQuantity } from '@/core/sourcing';
import { fraction } from '@/core/units';
import type { OrderLineRow } from '@/data/repositories/orders';
import type { Buying } from '../catalogue/buying';

/** The price columns of a line for a quantity: from the source's list, or empty when there is none. */
export function expectedPrice(buying: Buying | undefined, packs: number, on: string) {
  const price = buying?.priceAt(packs, on) ?? null;
  const content = price?.packContent ?? buying?.content ?? fraction(1n);
  return {
    priceAmount: price?.amount ?? null,
    expectedAmount: price?.amount ?? null,
    pricePer: price?.perQuantity ?? '1',
    priceContentNum: Number(content.num),
    priceContentDen: Number(content.den),
  };
}

/** A line as its breaks are counted, with over what they are. */
export const breakLineOf = (buying: Buying | undefined, packs: number) => ({
  itemId: buying?.source.itemId ?? 0,
  priceGroup: buying?.source.priceGroup ?? '',
  packs,
  scope: buying?.source.breakScope ?? ('line' as const),
});

/** The packs at which the price of one of the lines of an order is looked up. */
export const breakPacks = (lines: readonly ReturnType<typeof breakLineOf>[], at: number): number => {
  const line = lines[at] as ReturnType<typeof breakLineOf>;
  return breakQuantity(line, lines, line.scope);
};

/** Whether the breaks of one line count another. */
export const countTogether = (lines: readonly ReturnType<typeof breakLineOf>[], at: number, other: number): boolean => {
  const line = lines[at] as ReturnType<typeof breakLineOf>;
  const with1 = { ...(lines[other] as ReturnType<typeof breakLineOf>), packs: 1 };
  return line.scope !== 'line' && breakQuantity(line, [with1], line.scope) === 1;
};

/** The price of a stored line, null when it has none. */
export const priceOf = (
  l: Pick<OrderLineRow, 'priceAmount' | 'pricePer' | 'priceContentNum' | 'priceContentDen'>,
): Price | null =>
  l.priceAmount === null
    ? null
    : {
        amount: toDecimal(fromDecimal(l.priceAmount)),
        perQuantity: toDecimal(fromDecimal(l.pricePer)),
        packContent: fraction(l.priceContentNum, l.priceContentDen),
      };

type Priced = Parameters<typeof priceOf>[0] & Pick<OrderLineRow, 'freeOfCharge' | 'discountPercent'>;

/** Some of a stored line as its net is reckoned. */
export const someOf = (l: Priced, base: Quantity): TotalLine => ({
  base,
  price: priceOf(l),
  freeOfCharge: l.freeOfCharge === 1,
  discountPercent: toDecimal(fromDecimal(l.discountPercent)),
});

export const totalLineOf = (l: OrderLineRow): TotalLine => someOf(l, fromDecimal(l.baseQuantity));
