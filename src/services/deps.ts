import type { Pool } from 'mysql2/promise';
import { type BusinessDate, businessDate } from '@/core/calendar';
import type { Company } from '@/data/repositories/company';

/** What every use case is given: the database and the clock. */
export type Deps = { readonly pool: Pool; readonly clock: () => Date };

/** An instant as the database keeps it, UTC with milliseconds. */
export const stamp = (at: Date): string => at.toISOString().replace('T', ' ').replace('Z', '');

export const todayOf = (deps: Deps, company: Pick<Company, 'timeZone'>): BusinessDate =>
  businessDate(deps.clock(), company.timeZone);

/** The time of day (HH:MM) in the company's time zone: whether a cut-off has passed. */
export const timeOf = (deps: Deps, company: Pick<Company, 'timeZone'>): string =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: company.timeZone,
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).format(deps.clock());
