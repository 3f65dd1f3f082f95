import type { Actor } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { OutboxRow } from '@/data/repositories/outbox';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import { readMail } from './readMail';

const fields: readonly FileField<OutboxRow>[] = [
  words('subject', 'Subject', (m) => m.subject),
  words('to', 'To', (m) => m.recipient),
  words('state', 'State', (m) => m.state),
  figure('attempts', 'Attempts', (m) => m.attempts),
  words('fault', 'Fault', (m) => m.fault),
  words('by', 'By', (m) => m.who ?? ''),
  words('written_at', 'Written at (UTC)', (m) => m.createdAt.slice(0, 19)),
  words('sent_at', 'Sent at (UTC)', (m) => m.sentAt?.slice(0, 19) ?? ''),
];

/** Mail as its list shows it, newest first, to be written to a file. Errors: forbidden. */
export async function readMailExport(deps: Deps, actor: Actor): Promise<Result<ListFile, Failure>> {
  const found = await readMail(deps, actor);
  return found.ok ? ok(await shortListFile(deps, 'Mail', fields, found.value)) : found;
}
