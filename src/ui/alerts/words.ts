import type { AlertMatter } from '@/core/people';

export const alertWords: Readonly<Record<AlertMatter, { readonly head: string; readonly about: string }>> = {
  below_zero: { head: 'Below zero', about: 'more went out than was booked in' },
  below_min: { head: 'At or below the minimum', about: 'what lies there has come to its minimum' },
  above_max: { head: 'Above the maximum', about: 'more than the maximum and a pack is there' },
  transfer_asked: { head: 'A place asks for goods', about: 'a request waits for approval' },
  count_due: { head: 'A count is due', about: 'by its rhythm' },
};
