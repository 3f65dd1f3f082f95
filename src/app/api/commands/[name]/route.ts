import { commands, envelope } from '@/app/_server/commands';
import { deps } from '@/app/_server/deps';
import { answer, handled, jsonOf, refuse, sameOrigin } from '@/app/_server/respond';
import { currentSession, rotateIfDue } from '@/app/_server/session';

/** One command of a client: who is it, is the shape right, run it, say what came of it. */
export const POST = (request: Request, { params }: { params: Promise<{ name: string }> }) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    const { name } = await params;
    const command = Object.hasOwn(commands, name) ? commands[name] : undefined;
    if (!command) return refuse({ kind: 'unknown_command' });
    const body = envelope.validate(await jsonOf(request));
    const input = body.error ? body : command.shape.validate(body.value.input, { convert: false });
    if (input.error) return refuse({ kind: 'malformed', field: String(input.error.details[0]?.path[0] ?? '') });
    const result = await command.run(deps(), session.actor, { key: body.value.key, input: input.value as never });
    await rotateIfDue(session);
    return answer(result);
  });
