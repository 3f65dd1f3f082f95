import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { setUserLocale } from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';

/** Language regions to choose from: how figures and dates are written. Texts are English. */
export const locales = [
  'en-GB',
  'en-US',
  'de-DE',
  'de-CH',
  'fr-FR',
  'nl-NL',
  'es-ES',
  'it-IT',
  'sv-SE',
  'pl-PL',
] as const;

/** How a person reads figures and dates; '' = as the browser says. Everybody sets their own.
 *  Errors: invalid_field locale. */
export async function setLocale(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly locale: string }>,
): Promise<Result<null, Failure>> {
  const { locale } = request.input;
  if (locale !== '' && !(locales as readonly string[]).includes(locale))
    return err(invalidField('locale', { kind: 'name_missing' }));
  return command(deps, actor, 'set-locale', request, async (tx) => {
    await setUserLocale(tx, actor.userId, locale);
    return ok(null);
  });
}
