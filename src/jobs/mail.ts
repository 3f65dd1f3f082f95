import { createTransport, type Transporter } from 'nodemailer';
import { ok } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { claimMails, type MailRow, markMailFault, markMailSent } from '@/data/repositories/outbox';
import { readSnapshot, write } from '@/data/transaction';
import { orderPdf } from '@/formats/orderPdf';
import { type Deps, stamp } from '@/services/deps';
import { paperOf } from '@/services/purchase/orderPaper';
import { postMailed } from '@/services/purchase/postMailed';

/** A mail server that is away is tried again after 5, 10, 20 … seconds, at most so often. */
const MAX_ATTEMPTS = 10;
/** While it is being sent nobody else takes it. */
const HOLD_SECONDS = 60;

const transports = new Map<string, Transporter>();
function transportOf(url: string): Transporter {
  const known = transports.get(url);
  if (known) return known;
  const made = createTransport({ url, connectionTimeout: 5000, greetingTimeout: 5000, socketTimeout: 10_000 } as never);
  transports.set(url, made);
  return made;
}

/** Sends what waits in the outbox by SMTP (VORRAT_SMTP_URL; without one it waits). The sending itself is outside any
 *  transaction; after a crash between the two the mail goes out again under the same Message-ID. Returns how many it had. */
export async function sendWaitingMail(deps: Deps, url = process.env.VORRAT_SMTP_URL ?? ''): Promise<number> {
  if (url === '') return 0;
  const at = (seconds: number) => stamp(new Date(deps.clock().getTime() + seconds * 1000));
  const claimed = await write<MailRow[], never>(deps.pool, async (tx) =>
    ok(await claimMails(tx, at(0), at(HOLD_SECONDS), 20)),
  );
  const mails = claimed.ok ? claimed.value : [];
  if (mails.length === 0) return 0;
  const { mailFrom } = await readSnapshot(deps.pool, readCompany);
  for (const m of mails) {
    const outcome = await sendOne(deps, url, mailFrom, m).then(
      () => null,
      (e: unknown) => (e instanceof Error ? e.message : String(e)).slice(0, 400),
    );
    const attempts = m.attempts + 1;
    const state = attempts >= MAX_ATTEMPTS ? ('failed' as const) : ('waiting' as const);
    await write(deps.pool, async (tx) => {
      if (outcome === null) {
        // The order before its mail: so whoever works on the order and the worker lock in the same order.
        await postMailed(tx, m.id, at(0));
        await markMailSent(tx, m.id, at(0));
      } else await markMailFault(tx, { id: m.id, state, fault: outcome, nextTry: at(5 * 2 ** (attempts - 1)) });
      return ok(null);
    });
  }
  return mails.length;
}

async function sendOne(deps: Deps, url: string, from: string, m: MailRow): Promise<void> {
  const { recipient: to, subject, body: text, messageId } = m;
  const attachments = await attachmentsOf(deps, m);
  await transportOf(url).sendMail({ from, to, subject, text, messageId, attachments });
}

/** A mail that carries an order has it as a PDF beside its text. */
async function attachmentsOf(deps: Deps, m: MailRow): Promise<{ filename: string; content: Buffer }[]> {
  if (m.entity !== 'order') return [];
  const paper = await readSnapshot(deps.pool, (tx) => paperOf(deps, tx, m.entityId));
  return paper
    ? [{ filename: `order-${paper.number.replace(/[^\w.-]+/g, '-')}.pdf`, content: await orderPdf(paper) }]
    : [];
}
