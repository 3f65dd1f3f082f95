/** What an item may still lack before it can be bought and sold without a question. */
export const completions = ['category', 'supplier', 'price', 'policy', 'sale_price', 'barcode'] as const;
export type Completion = (typeof completions)[number];

export type Completeness = {
  readonly categoryNamed: boolean;
  readonly sources: number;
  /** Other items that it is made of. */
  readonly components: number;
  readonly pricedSources: number;
  readonly standardCost: string | null;
  readonly policies: number;
  readonly salePrice: string | null;
  readonly barcodes: number;
  readonly stockKept: boolean;
  readonly purpose: 'resale' | 'own_use' | 'service' | 'one_off';
};

/** What is missing of an item. A sale price and a barcode only of what is sold again, a policy only of what stock is kept of,
 *  a supplier only of what is not made of other items, a price only once there is one (or a standard cost instead). */
export function whatIsMissing(c: Completeness): Completion[] {
  const sold = c.purpose === 'resale';
  const lacks: Record<Completion, boolean> = {
    category: !c.categoryNamed,
    supplier: c.sources === 0 && c.components === 0,
    price: c.sources > 0 && c.pricedSources === 0 && c.standardCost === null,
    policy: c.stockKept && c.purpose !== 'one_off' && c.policies === 0,
    sale_price: sold && c.salePrice === null,
    barcode: sold && c.barcodes === 0,
  };
  return completions.filter((what) => lacks[what]);
}
