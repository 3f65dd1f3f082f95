import Joi from 'joi';
import { clientAddress } from '@/app/_server/address';
import { deps } from '@/app/_server/deps';
import { answer, handled, jsonOf, refuse, sameOrigin } from '@/app/_server/respond';
import { sessionToken, setSessionToken } from '@/app/_server/session';
import { ok } from '@/core/result';
import { signIn, signOut } from '@/services/people/session';

const shape = Joi.object({ login: Joi.string().trim().max(60).required(), password: Joi.string().max(200).required() });

export const POST = (request: Request) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const { value, error } = shape.validate(await jsonOf(request));
    if (error) return refuse({ kind: 'malformed', field: String(error.details[0]?.path[0] ?? '') });
    const signed = await signIn(deps(), { ...value, address: clientAddress(request) });
    if (!signed.ok) return answer(signed);
    await setSessionToken(signed.value.token);
    return answer(ok({ name: signed.value.actor.name }));
  });

export const DELETE = (request: Request) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const token = await sessionToken();
    if (token) await signOut(deps(), token);
    await setSessionToken(null);
    return answer(ok(null));
  });
