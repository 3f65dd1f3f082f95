import type { BusinessDate } from '@/core/calendar';

/** The numbering period of a day: year and month. @example periodOf('2026-11-23')  // '2611' */
export const periodOf = (date: BusinessDate): string => date.slice(2, 4) + date.slice(5, 7);

/** Whether a number is of our own pattern, so that it can't be typed. */
export const isOwnNumber = (number: string): boolean => /^\d{4}-\d{4,}$/.test(number);

/** 47th order of November 2026: "2611-0047". */
export const numberText = (prefix: string, period: string, n: number): string =>
  `${prefix}${period}-${String(n).padStart(4, '0')}`;
