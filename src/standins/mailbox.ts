import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type ParsedMail, simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

/** A stand-in for the mail servers of the world: takes every mail that is sent to it on loopback and keeps it as an .eml
 *  file. A mail that comes twice (same Message-ID) is one file. Resolves with what ends it. */
export function startMailbox(folder: string, port: number): Promise<{ port: number; close: () => Promise<void> }> {
  mkdirSync(folder, { recursive: true });
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    logger: false,
    size: 10_000_000,
    onData(stream, _session, done) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        const raw = Buffer.concat(parts);
        const id = /^message-id:\s*(\S+)/im.exec(raw.toString('latin1'))?.[1] ?? raw.toString('latin1');
        const name = createHash('sha256').update(id).digest('hex').slice(0, 24);
        const file = join(folder, `${name}.eml`);
        writeFileSync(`${file}.part`, raw);
        renameSync(`${file}.part`, file);
        done();
      });
    },
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.server.address();
      resolve({
        port: typeof address === 'object' && address ? address.port : port,
        close: () => new Promise((closed) => server.close(() => closed())),
      });
    });
  });
}

export type ReceivedMail = {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  /** Names of the files beside it. */
  readonly attachments: readonly string[];
  readonly receivedAt: string;
};

const addresses = (field: ParsedMail['to']): string =>
  (Array.isArray(field) ? field : field ? [field] : []).map((a) => a.text).join(', ');

/** What the stand-in has received, newest first. */
export async function readMailbox(folder: string, limit: number): Promise<ReceivedMail[]> {
  const files = listed(folder)
    .map((name) => ({ name, at: statSync(join(folder, name)).mtime }))
    .sort((a, b) => b.at.getTime() - a.at.getTime())
    .slice(0, limit);
  return Promise.all(
    files.map(async ({ name, at }) => {
      const mail = await simpleParser(readFileSync(join(folder, name)));
      return {
        id: name.replace('.eml', ''),
        from: mail.from?.text ?? '',
        to: addresses(mail.to),
        subject: mail.subject ?? '',
        text: mail.text ?? '',
        attachments: mail.attachments.flatMap((a) => a.filename ?? []),
        receivedAt: at.toISOString(),
      };
    }),
  );
}

function listed(folder: string): string[] {
  try {
    return readdirSync(folder).filter((f) => f.endsWith('.eml'));
  } catch {
    return [];
  }
}
