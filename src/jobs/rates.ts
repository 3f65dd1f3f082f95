import { actorOfUser } from '@/services/people/session';
import { uploadSheet } from '@/services/sheets/uploadSheet';
import type { Handler } from './handler';

const MOST_MEGABYTES = 5;
const PATIENCE_MS = 10_000;

/** Fetches the rate file (VORRAT_RATES_URL) and brings it as a spreadsheet of rates: what it says is shown before it counts.
 *  Errors: throws when it can't be fetched; the job says so and is tried again. */
export const fetchRates: Handler = async (deps, { input, step }) => {
  const url = process.env.VORRAT_RATES_URL ?? '';
  if (url === '') throw new Error('no rate file is named (VORRAT_RATES_URL)');
  await step({ done: 0, total: 1, resumeAt: null });
  const { userId } = input as { userId: number };
  const actor = await actorOfUser(deps, userId);
  if (!actor) throw new Error(`nobody has the id ${userId}`);
  const response = await fetch(url, { signal: AbortSignal.timeout(PATIENCE_MS) });
  if (!response.ok || !response.body) throw new Error(`the rate file answers ${response.status}`);
  const name = `rates ${deps.clock().toISOString().slice(0, 10)}.csv`;
  const brought = await uploadSheet(
    deps,
    actor,
    { kind: 'rates', name, mostMegabytes: MOST_MEGABYTES },
    bodyOf(response.body),
  );
  if (!brought.ok) throw new Error(`the rate file was refused: ${brought.error.kind}`);
};

async function* bodyOf(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = body.getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read()) yield part.value;
}
