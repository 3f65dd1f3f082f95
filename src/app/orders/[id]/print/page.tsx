import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { deps } from '@/app/_server/deps';
import { idOf, requestFormat, shown } from '@/app/_server/page';
import { requireActor } from '@/app/_server/session';
import { PaperText } from '@/core/purchase';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { Paper } from '@/ui/frame/paper';
import { Refused } from '@/ui/frame/refused';
import { PaperSheet } from '@/ui/orders/paper-sheet';

export const metadata: Metadata = { title: 'Purchase order' };

export default async function PrintPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await requireActor();
  const format = await requestFormat();
  const id = idOf((await params).id);
  const read = await readOrderPaper(deps(), actor, id);
  // A draft, also one that was approved before, is nothing to put on paper.
  if (!read.ok && read.error.kind === 'not_in_this_state') notFound();
  const { value, failure } = shown(read);
  if (failure) return <Refused failure={failure} format={format} />;
  return (
    <Paper
      title={new PaperText(value).title}
      day=""
      company=""
      back={{ href: `/orders/${id}`, words: 'Back to the order' }}
    >
      <PaperSheet paper={value} />
    </Paper>
  );
}
