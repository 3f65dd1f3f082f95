import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readMail } from '@/services/work/readMail';
import { readMailbox } from '@/standins/mailbox';
import { Refused } from '@/ui/frame/refused';
import { MailPage } from '@/ui/setup/mail-page';

export const metadata: Metadata = { title: 'Mail' };

export default async function MailboxPage({ searchParams }: { searchParams: SearchParams }) {
  const chosen = text((await searchParams).mail);
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readMail(deps(), actor));
  if (failure) return <Refused failure={failure} format={format} />;
  const folder = process.env.VORRAT_MAILBOX;
  const received = folder ? await readMailbox(folder, 200) : [];
  return <MailPage outbox={value} received={received} standin={Boolean(folder)} chosen={chosen} format={format} />;
}
