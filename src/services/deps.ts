import type { Pool } from 'mysql2/promise';
import { type BusinessDate, businessDate } from '@/core/calendar';
import type { Company } from '@/data/repositories/company';

/** What every use case is given: the database and the clock. */
export type Deps = { readonly pool: Pool; readonly clock: () => Date };

/** An instant as the database keeps it, UTC with milliseconds. */
export const stamp = (at: Date): string => at.toISOString().replace('T', ' ').replace('Z', '');

export const todayOf = (deps: Deps, company: Pick<Company, 'timeZone'>): BusinessDate =>
  businessDate(deps.clock(), company.timeZone);
