import Joi from 'joi';
import { policyEdits } from '@/app/_server/commands';
import { deps } from '@/app/_server/deps';
import { ask } from '@/app/_server/read';
import type { PolicyEdit } from '@/services/planning/policyEdits';
import { previewPolicies } from '@/services/planning/previewPolicies';

/** What cells of the policy sheet would do if they were saved. Changes nothing. */
export const POST = (request: Request) =>
  ask(request, Joi.object({ edits: policyEdits }), (actor, { edits }: { edits: readonly PolicyEdit[] }) =>
    previewPolicies(deps(), actor, edits),
  );
