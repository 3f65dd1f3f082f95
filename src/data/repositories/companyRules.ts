import type { LeadTimeRule } from '@/core/leadtime';
import type { PolicySetting } from '@/core/policy';
import type { Asking } from '../asking';

/** What the company says of planning. */
export type CompanyRules = {
  readonly timeZone: string;
  readonly trigger: PolicySetting['trigger'];
  readonly refill: PolicySetting['refill'];
  readonly leadTime: LeadTimeRule;
};
type Row = Omit<CompanyRules, 'leadTime'> & LeadTimeRule;

const BEFORE_SETUP: CompanyRules = {
  ...{ timeZone: 'UTC', trigger: null, refill: null },
  leadTime: { use: 'stated', least: 5, empirical: 20 },
};

/** Asked for once beside everything that needs it. */
export function askCompanyRules(ask: Asking): () => Promise<CompanyRules> {
  const rows = ask.rows<Row>(
    `SELECT time_zone AS timeZone, trigger_rule AS \`trigger\`, refill_rule AS refill, lead_time_rule AS \`use\`,
            lead_time_least AS least, lead_time_empirical AS empirical FROM company WHERE id = 1`,
  );
  return async () => {
    const row = (await rows())[0];
    if (!row) return BEFORE_SETUP;
    const { use, least, empirical, ...rules } = row;
    return { ...rules, leadTime: { use, least, empirical } };
  };
}
