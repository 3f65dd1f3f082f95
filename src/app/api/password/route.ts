import Joi from 'joi';
import { clientAddress } from '@/app/_server/address';
import { deps } from '@/app/_server/deps';
import { answer, handled, jsonOf, refuse, sameOrigin } from '@/app/_server/respond';
import { currentSession, sessionToken } from '@/app/_server/session';
import { changePassword } from '@/services/people/changePassword';

const word = Joi.string().allow('').max(200).required();
const shape = Joi.object({ old: word, password: word });

/** One's own password. */
export const POST = (request: Request) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const session = await currentSession();
    const token = await sessionToken();
    if (!session || !token) return refuse({ kind: 'not_signed_in' });
    const { value, error } = shape.validate(await jsonOf(request));
    if (error) return refuse({ kind: 'malformed', field: String(error.details[0]?.path[0] ?? '') });
    const address = clientAddress(request);
    return answer(await changePassword(deps(), session.actor, { ...value, token, address }));
  });
