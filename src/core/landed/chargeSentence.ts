/** A charge as a form has it: words by column. */
type Cells = Readonly<Record<string, string>>;

/** A charge or allowance in one sentence.
 *  @example chargeSentence({ name: 'Sea freight', amount_kind: 'asked each time', spread: 'weight', into_cost: 'stock cost' })
 *  // 'Sea freight: asked each time, by weight, into stock cost' */
export function chargeSentence(c: Cells): string {
  const sum = `${c.amount ?? ''} ${c.currency || 'in its currency'}`.trim();
  const on = c.on_charges ? ` and ${c.on_charges.replaceAll(';', ',')}` : '';
  const amount =
    c.amount_kind === 'fixed'
      ? `${sum} an order`
      : c.amount_kind === 'percent'
        ? `${c.amount} % of goods${on}`
        : c.amount_kind === 'duty rate'
          ? `the duty rate of each item, of goods${on}`
          : `asked each time${c.amount ? `, usually ${sum}` : ''}`;
  const spread = c.amount_kind === 'duty rate' ? '' : c.spread === 'evenly' ? ', evenly' : `, by ${c.spread}`;
  const into =
    c.into_cost === 'recoverable'
      ? ', recoverable'
      : `, into ${c.into_cost}${c.account && c.into_cost !== 'stock cost' ? ` ${c.account}` : ''}`;
  return `${c.name}: ${c.sign === 'allowance' ? 'taken off, ' : ''}${amount}${spread}${into}`;
}
