import { timingSafeEqual } from 'node:crypto';
import Joi from 'joi';
import { deps } from '@/app/_server/deps';
import { answer, handled, jsonOf, refuse, sameOrigin } from '@/app/_server/respond';
import { setSessionToken } from '@/app/_server/session';
import { foundCompany } from '@/services/people/foundCompany';
import { signIn } from '@/services/people/session';

const word = (most: number) => Joi.string().allow('').max(most).required();
const shape = Joi.object({
  ...{ code: word(80), company: word(120), currency: word(3), timeZone: word(60) },
  ...{ login: word(60), name: word(120), password: word(200) },
});

/** Whether it is the code that the start command has shown. Without one nobody can found a company. */
function isRight(code: string): boolean {
  const right = process.env.VORRAT_SETUP_CODE ?? '';
  const [a, b] = [Buffer.from(code.padEnd(80)), Buffer.from(right.padEnd(80))];
  return right !== '' && a.length === b.length && timingSafeEqual(a, b);
}

/** Sets the company up and signs its owner in. */
export const POST = (request: Request) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const { value, error } = shape.validate(await jsonOf(request));
    if (error) return refuse({ kind: 'malformed', field: String(error.details[0]?.path[0] ?? '') });
    const { code, ...company } = value;
    const founded = await foundCompany(deps(), isRight(code), company);
    if (!founded.ok) return answer(founded);
    const { login, password } = company;
    const signed = await signIn(deps(), { login, password, address: 'founding' });
    if (signed.ok) await setSessionToken(signed.value.token);
    return answer(founded);
  });
