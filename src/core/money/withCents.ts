/** A decimal amount with at least two decimals, as prices are written. @example withCents('32.8')  // '32.80' */
export function withCents(amount: string): string {
  const [whole, decimals = ''] = amount.split('.');
  return `${whole}.${decimals.padEnd(2, '0')}`;
}
