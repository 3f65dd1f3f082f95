import { deps } from '@/app/_server/deps';
import { requireActor } from '@/app/_server/session';
import { orderPdf } from '@/formats/orderPdf';
import { readOrderPaper } from '@/services/purchase/orderPaper';

/** The order as a PDF. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const actor = await requireActor();
  const id = Number((await params).id);
  const paper = Number.isSafeInteger(id) && id > 0 ? await readOrderPaper(deps(), actor, id) : null;
  if (!paper?.ok)
    return new Response('There is no such paper.', { status: paper?.error.kind === 'forbidden' ? 403 : 404 });
  const { number, amendment } = paper.value;
  const name = `order-${number}${amendment > 0 ? `-change-${amendment}` : ''}`.replace(/[^\w.-]+/g, '-');
  return new Response(new Uint8Array(await orderPdf(paper.value)), {
    headers: {
      'Content-Type': 'application/pdf',
      'Content-Disposition': `inline; filename="${name}.pdf"`,
      'Cache-Control': 'no-store',
    },
  });
}
