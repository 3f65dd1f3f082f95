/** How long a supplier says it takes. */
export const leadTimeWords = (s: { leadTimeDays: number; leadTimeKind: 'working' | 'calendar' }): string =>
  `${s.leadTimeDays} ${s.leadTimeKind} ${s.leadTimeDays === 1 ? 'day' : 'days'}`;
