import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { requireActor } from '@/app/_server/session';
import { PaperText } from '@/core/purchase';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { countOf } from '@/ui/format';
import { Paper } from '@/ui/frame/paper';
import { Refused } from '@/ui/frame/refused';
import { PaperSheet } from '@/ui/orders/paper-sheet';

export const metadata: Metadata = { title: 'Purchase orders' };

/** Several orders on paper, each beginning on a page of its own. */
export default async function PrintManyPage({ searchParams }: { searchParams: SearchParams }) {
  const actor = await requireActor();
  const asked = text((await searchParams).ids)
    .split(',')
    .map(Number);
  const ids = [...new Set(asked.filter((id) => Number.isSafeInteger(id) && id > 0))].slice(0, 100);
  const papers = [];
  for (const id of ids) {
    const { value, failure } = shown(await readOrderPaper(deps(), actor, id));
    if (failure) return <Refused failure={failure} format={await requestFormat()} />;
    papers.push(value);
  }
  return (
    <Paper title="" day="" company="" back={{ href: '/orders', words: 'Back to the orders' }}>
      <h1 className="screen-only mb-6 text-xl font-semibold">{countOf(papers.length, 'purchase order')}</h1>
      {papers.length === 0 && <p>No order was named.</p>}
      {papers.map((paper, i) => (
        <section key={paper.number} className={i === 0 ? '' : 'mt-16 break-before-page border-t pt-8 print:mt-0'}>
          <h2 className="mb-6 text-xl font-semibold">{new PaperText(paper).title}</h2>
          <PaperSheet paper={paper} />
        </section>
      ))}
    </Paper>
  );
}
