import { type Actor, may } from '@/core/people';
import { deliveryAddress, invoiceAddress, isOrdered, type OrderPaper, orderTotals } from '@/core/purchase';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCustomersOfLines } from '@/data/repositories/customerOrders';
import { readJobsOf } from '@/data/repositories/jobMaterials';
import { readPromisedOf } from '@/data/repositories/orderLife';
import { findOrder, readOrderLines, readParts } from '@/data/repositories/orders';
import { readPaperSetup } from '@/data/repositories/papers';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { costOfOrder } from './orderCosts';
import { totalLineOf } from './pricing';
import { toldOtherwise } from './said';

/** An order as its supplier gets it on paper. Errors: forbidden, not_found, not_in_this_state while it is a draft. */
export async function readOrderPaper(deps: Deps, actor: Actor, orderId: number): Promise<Result<OrderPaper, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<OrderPaper, Failure>>(deps.pool, async (tx) => {
    const order = await findOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    if (!isOrdered(order.state) && order.state !== 'closed')
      return err({ kind: 'not_in_this_state', state: order.state, action: 'send' });
    const paper = await paperOf(deps, tx, orderId);
    return paper ? ok(paper) : err({ kind: 'not_found', what: 'order' });
  });
}

/** The paper of an order as it stands; null when there is none of that id. */
export async function paperOf(deps: Deps, tx: Tx, orderId: number): Promise<OrderPaper | null> {
  const order = await findOrder(tx, orderId);
  if (!order) return null;
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  const places = await readLocations(tx);
  const all = await readOrderLines(tx, [orderId]);
  const allParts = await readParts(tx, [orderId]);
  const lines = all.filter((l) => l.unordered === 0 && fromDecimal(l.baseQuantity) > 0);
  const partsOf = groupBy(allParts, (p) => p.lineId);
  const totals = orderTotals(lines.map(totalLineOf), order.currency);
  const { cost } = await costOfOrder(tx, order, lines, await readExchange(tx, company.currency, today), today);
  const customers = await readCustomersOfLines(
    tx,
    allParts.flatMap((p) => p.customerLineId ?? []),
  );
  const promised = groupBy(await readPromisedOf(tx, orderId), (r) => r.partId);
  const jobs = await readJobsOf(tx, orderId);
  const shown = lines.flatMap((l) => partsOf.get(l.id) ?? []);
  const used = places.filter((l) => shown.some((p) => p.locationId === l.id && p.customerLineId === null));
  const heads = used.map((l) => ({ name: l.name, address: deliveryAddress(l, company.invoiceAddress) }));
  const whereTo = (p: (typeof shown)[number]) => {
    const to = customers.get(p.customerLineId ?? 0);
    if (to) return { place: to.customer, address: to.address };
    return { place: places.find((l) => l.id === p.locationId)?.name ?? '', address: '' };
  };
  const plain = (decimal: string) => toDecimal(fromDecimal(decimal));
  return {
    number: order.number ?? '',
    amendment: order.amendmentNo,
    changes: order.amendmentNo > 0 ? await toldOtherwise(tx, orderId, all, allParts) : [],
    ...{ orderDate: order.orderDate, language: order.supplierLanguage, currency: order.currency },
    buyer: { name: company.name, address: company.invoiceAddress },
    supplier: order.supplierAddress || order.supplierName,
    deliverTo: heads,
    invoiceTo: order.invoiceAddress || invoiceAddress(used, company.invoiceAddress),
    setup: await readPaperSetup(tx),
    ...{ payment: order.paymentTerms, delivery: order.deliveryTerms, shippingWay: order.shippingWay },
    ...{ contact: order.createdBy, approvedBy: order.approvedBy ?? '', text: order.orderText },
    lines: lines.map((l, i) => ({
      ...{ lineNo: l.lineNo, description: l.description, edition: l.edition, theirNumber: l.supplierItemNumber },
      ...{
        ourNumber: l.itemNumber ?? '',
        makersNumber: l.makersNumber ?? '',
        packName: l.packName,
        unit: l.unitName ?? '',
      },
      parts: (partsOf.get(l.id) ?? []).map((p) => ({
        ...{ packs: fromDecimal(p.packQuantity), base: fromDecimal(p.baseQuantity), date: p.wantedDate },
        ...whereTo(p),
      })),
      price: l.priceAmount === null ? null : plain(l.priceAmount),
      discount: plain(l.discountPercent),
      ...{ per: plain(l.pricePer), freeOfCharge: l.freeOfCharge === 1, net: totals.lines[i] as number },
      note: l.printedNote,
      references: [
        ...new Set([
          ...(partsOf.get(l.id) ?? []).flatMap((p) => (promised.get(p.id) ?? []).map((r) => r.name)),
          ...(jobs.has(l.id) ? [jobs.get(l.id)?.job ?? ''] : []),
        ]),
      ],
    })),
    net: totals.net,
    charges: cost.charges.flatMap(({ charge, inOrder }) =>
      charge.billed && inOrder !== 0 ? [{ name: charge.name, minor: inOrder }] : [],
    ),
    taxes:
      cost.tax.paidTo === 'supplier'
        ? cost.tax.sums.flatMap((s) => (s.percent === null ? [] : [{ ...s, percent: s.percent }]))
        : [],
    total: cost.total,
  };
}
