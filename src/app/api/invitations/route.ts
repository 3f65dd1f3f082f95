import Joi from 'joi';
import { clientAddress } from '@/app/_server/address';
import { deps } from '@/app/_server/deps';
import { answer, handled, jsonOf, refuse, sameOrigin } from '@/app/_server/respond';
import { setSessionToken } from '@/app/_server/session';
import { acceptInvitation } from '@/services/people/acceptInvitation';
import { signIn } from '@/services/people/session';

const shape = Joi.object({
  token: Joi.string().max(80).required(),
  password: Joi.string().allow('').max(200).required(),
});

/** Sets a password with a link and signs its person in. */
export const POST = (request: Request) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const { value, error } = shape.validate(await jsonOf(request));
    if (error) return refuse({ kind: 'malformed', field: String(error.details[0]?.path[0] ?? '') });
    const address = clientAddress(request);
    const accepted = await acceptInvitation(deps(), { ...value, address });
    if (!accepted.ok) return answer(accepted);
    const signed = await signIn(deps(), { login: accepted.value.login, password: value.password, address });
    if (signed.ok) await setSessionToken(signed.value.token);
    return answer(accepted);
  });
