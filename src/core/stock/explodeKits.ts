import { checked, MICRO, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

export type KitContent = { readonly itemId: number; readonly quantity: Quantity };
export type SoldLine = { readonly itemId: number; readonly quantity: Quantity };
/** kitLine: number of the line of the kit that takes it, from 1. */
export type ComponentLine = SoldLine & { readonly kitLine: number };

/** What sold kits take of their components, as the kits are now: quantity × content, in complete sets. Kits hold no stock,
 *  and a kit in a kit is taken apart as well. Units: base units of each item.
 *  @example 2 kits of 4 balls and 1 needle on line 3 → 8 balls and 2 needles, each with kitLine 3 */
export function explodeKits(
  lines: readonly SoldLine[],
  contentOf: (itemId: number) => readonly KitContent[],
): ComponentLine[] {
  const taken: ComponentLine[] = [];
  const take = (itemId: number, quantity: Quantity, kitLine: number, within: readonly number[]): void => {
    for (const c of contentOf(itemId)) {
      const own = checked(Number(divideHalfUp(BigInt(quantity) * BigInt(c.quantity), BigInt(MICRO))));
      const inner = within.includes(c.itemId) ? [] : contentOf(c.itemId);
      if (inner.length > 0) take(c.itemId, own, kitLine, [...within, c.itemId]);
      else taken.push({ itemId: c.itemId, quantity: own, kitLine });
    }
  };
  for (const [i, l] of lines.entries()) take(l.itemId, l.quantity, i + 1, [l.itemId]);
  return taken;
}
