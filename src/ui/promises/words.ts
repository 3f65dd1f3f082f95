import type { LineState } from '@/core/promise';
import type { CoveredBy, PromiseLine } from '@/services/promise/readPromises';
import { countOf, type Format } from '../format';

export const lineWords: Readonly<Record<LineState, string>> = {
  waiting: 'waits',
  part_ready: 'ready in part',
  ready: 'ready',
  handed_over: 'handed over',
  cancelled: 'cancelled',
};

export const wayWords: Readonly<Record<PromiseLine['way'], string>> = {
  from_stock: 'to be sent',
  collect: 'collected',
  straight: 'straight from the supplier',
};

const kinds: Readonly<Record<CoveredBy['kind'], string>> = {
  stock: 'free stock',
  order: 'order',
  draft: 'draft order',
  tray: 'in the tray',
  transfer: 'on the road',
  to_be_sent: 'to be sent here',
};

/** What covers something, by its number or by what it is. */
export const coverWords = (c: CoveredBy): string => (c.ref === null ? kinds[c.kind] : c.ref);

/** How a promise stands to the wanted day. */
export function slackWords(
  l: Pick<PromiseLine, 'promise' | 'slackDays' | 'missing' | 'backordered' | 'short'>,
  format: Format,
): string {
  if (l.backordered === 0) return '';
  if (l.short === 0) return 'put by nearer the day';
  if (l.slackDays === null) return l.missing > 0 ? `nothing covers ${format.quantity(l.missing)}` : '';
  if (l.slackDays < 0) return `${countOf(-l.slackDays, 'day')} late`;
  return l.slackDays === 0 ? 'just in time' : `${countOf(l.slackDays, 'day')} to spare`;
}

/** When a line that waits is promised for; what is ready is ready. */
export function promiseWords(
  l: Pick<PromiseLine, 'open' | 'backordered' | 'short' | 'promise'>,
  format: Format,
): string {
  if (l.open === 0) return '–';
  if (l.backordered === 0) return 'ready';
  if (l.short === 0) return 'in stock';
  return l.promise ? format.date(l.promise.date) : 'not dated';
}

export const isBehind = (l: Pick<PromiseLine, 'short' | 'slackDays'>): boolean =>
  l.short > 0 && (l.slackDays === null || l.slackDays < 0);
