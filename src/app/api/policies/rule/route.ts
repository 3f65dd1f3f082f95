import Joi from 'joi';
import { deps } from '@/app/_server/deps';
import { ask } from '@/app/_server/read';
import { readRuleValues } from '@/services/planning/readRuleValues';

const index = Joi.number().integer().min(0).max(1e9).required();
const shape = Joi.object({
  ...{ list: Joi.string().max(16).required(), from: index, end: index },
  rule: Joi.object({
    column: Joi.valid('min', 'max').required(),
    basis: Joi.valid('days_of_demand', 'advised', 'factor', 'min_plus_days', 'min_plus_packs').required(),
    amount: Joi.number().min(0).max(9999).required(),
    round: Joi.valid('packs', 'units').required(),
  }).required(),
});

/** What a rule makes of lines of an open policy sheet. Changes nothing. */
export const POST = (request: Request) =>
  ask(request, shape, (actor, asked: Parameters<typeof readRuleValues>[2]) => readRuleValues(deps(), actor, asked));
