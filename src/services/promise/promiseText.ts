import { toDecimal } from '@/core/quantity';
import type { PromiseLine } from './readPromises';

/** What a customer is told of an order: what lies ready, when the rest comes, what nothing is known of. Dates are ISO 8601. */
export function promiseText(
  order: { readonly number: string; readonly reference: string | null; readonly customer: string },
  lines: readonly PromiseLine[],
  company: string,
): { subject: string; body: string } {
  const open = lines.filter((l) => l.open > 0);
  const row = (l: PromiseLine) => {
    const what = `${toDecimal(l.open)} ${l.unit} ${l.name}`;
    if (l.backordered === 0)
      return `- ${what}: ${l.way === 'collect' ? `ready to be collected at ${l.location}` : 'ready to be sent'}`;
    const some = l.ready > 0 ? `${toDecimal(l.ready)} ready, the rest ` : '';
    return l.promise
      ? `- ${what}: ${some}expected on ${l.promise.date}`
      : `- ${what}: ${some}not dated yet; we tell you as soon as we know`;
  };
  const number = order.reference ?? order.number;
  return {
    subject: `Your order ${number} at ${company}`,
    body: [
      `Dear ${order.customer},`,
      '',
      `this is how your order ${number} stands:`,
      '',
      ...(open.length > 0 ? open.map(row) : ['- everything has been handed over']),
      '',
      `With kind regards, ${company}`,
    ].join('\n'),
  };
}
