/** A place as far as its addresses go; '' where it says none. */
export type Addressed = { readonly address: string; readonly invoiceAddress: string };

/** Where goods for a place go: to its own address, else to the company's. */
export const deliveryAddress = (place: Pick<Addressed, 'address'>, company: string): string =>
  place.address.trim() || company;

/** Where the invoice of an order goes: to the address that all its places agree on, a place without one standing for the
 *  company's; to the company's as soon as two differ, because an order has one invoice. Source: common practice.
 *  @example invoiceAddress([{ invoiceAddress: 'Pier 1' }, { invoiceAddress: '' }], 'Head office')  // 'Head office' */
export function invoiceAddress(places: readonly Pick<Addressed, 'invoiceAddress'>[], company: string): string {
  const wanted = new Set(places.map((p) => p.invoiceAddress.trim() || company));
  const [only] = wanted;
  return wanted.size === 1 && only !== undefined ? only : company;
}
