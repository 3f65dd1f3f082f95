import type { NeedCause } from '@/core/netting';
import type { NeedOrder, NeedShow } from '@/services/planning/needList';
import { causeWords } from '../marks/cause';

/** What the list of needs is asked for, as it stands in its address. */
export type NeedQuery = {
  readonly at: string;
  readonly q: string;
  readonly show: NeedShow;
  readonly cause: NeedCause | '';
  readonly by: NeedOrder;
  readonly mine: boolean;
};

/** The address of the list with something else asked for; what is empty or usual is left out. */
export function needsHref(query: NeedQuery, change: Partial<NeedQuery> = {}): string {
  const { at, q, show, cause, by, mine } = { ...query, ...change };
  const given = Object.entries({
    ...{ at, q, cause, show: show === 'open' ? '' : show, by: by === 'supplier' ? '' : by, mine: mine ? '1' : '' },
  }).filter(([, v]) => v !== '');
  return given.length === 0 ? '/needs' : `/needs?${new URLSearchParams(given)}`;
}

/** Whether a list shows fewer than all. */
export const isNarrowed = (q: NeedQuery): boolean => q.q !== '' || q.show !== 'open' || q.cause !== '' || q.mine;

export const showWords: Readonly<Record<NeedShow, string>> = {
  open: 'All needs',
  new: 'New since yesterday',
  late: 'Too late already',
  warned: 'With a warning',
};
export const orderWords: Readonly<Record<NeedOrder, string>> = {
  supplier: 'by supplier',
  place: 'by place',
  category: 'by category',
  buyer: 'by buyer',
  cause: 'by cause',
  urgent: 'urgent first',
};

/** What stands over a group, by what its needs have in common. */
export const groupTitle = (by: NeedOrder, title: string | null): string =>
  by === 'cause'
    ? (causeWords[title as NeedCause] ?? 'No cause')
    : (title ?? (by === 'buyer' ? 'Nobody is responsible' : 'Not said'));
