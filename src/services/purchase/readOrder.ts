import { eachText } from '@/core/money';
import { type Actor, may } from '@/core/people';
import {
  actionRights,
  actionsOf,
  type CostOfLine,
  costByShare,
  deliveryAddress,
  type Finding,
  invoiceAddress,
  isDrafted,
  type LineDifference,
  type LineKind,
  type Matching,
  type OrderAction,
  orderTotals,
  type PriceReason,
  type Progress,
  parseCostShares,
  progress,
} from '@/core/purchase';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { OrderTax, Purpose } from '@/core/tax';
import { divideHalfUp, type Fraction } from '@/core/units';
import { readChanges } from '@/data/repositories/bookkeeping';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCustomersOfLines } from '@/data/repositories/customerOrders';
import { readJobsOf } from '@/data/repositories/jobMaterials';
import { readAmendments, readOrderRules, readPromisedOf } from '@/data/repositories/orderLife';
import {
  findOrder,
  type LineBooking,
  type OrderLineRow,
  type OrderRow,
  type PartRow,
  readOrderLines,
  readParts,
} from '@/data/repositories/orders';
import { readUsers } from '@/data/repositories/people';
import { type ReceiptRow, readReceiptsOf } from '@/data/repositories/receipts';
import { readSnapshot } from '@/data/transaction';
import { type Exchange, readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { type ApprovalWord, approvalWord } from './approvalWord';
import { beyondOf } from './beyond';
import { factsOf } from './loadOrder';
import { isMovable } from './orderCell';
import { type ChargeOfOrder, type CostOfOrder, costOfOrder, purposeOf } from './orderCosts';
import { findingsOf } from './orderFindings';
import { goods, quantities } from './orderParts';
import { needsFourEyes, readApprovers } from './orderSums';
import { priceOf, totalLineOf } from './pricing';
import { type AmendmentView, amendmentView, toldOtherwise } from './said';

export type PartView = {
  readonly id: number;
  readonly location: string;
  readonly address: string;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly received: Quantity;
  readonly cancelled: Quantity;
  readonly wantedDate: string | null;
  /** As the supplier promised and confirmed it; null while it did not. */
  readonly promisedDate: string | null;
  readonly confirmedDate: string | null;
  readonly locationId: number | null;
  /** It can be sent to another place. */
  readonly movable: boolean;
  /** The customer that its supplier sends it to; `location` and `address` are theirs then. */
  readonly straight: { readonly orderId: number; readonly order: string } | null;
};

export type LineView = {
  readonly id: number;
  readonly lineNo: number;
  readonly kind: LineKind;
  readonly itemId: number | null;
  readonly itemNumber: string | null;
  readonly family: boolean;
  readonly description: string;
  readonly supplierItemNumber: string;
  readonly makersNumber: string;
  readonly packName: string;
  readonly unit: string;
  readonly packs: Quantity;
  readonly base: Quantity;
  readonly price: string | null;
  readonly per: string;
  readonly expected: string | null;
  readonly each: string | null;
  readonly freeOfCharge: boolean;
  /** Where a price that is on no list was proposed from. */
  readonly origin: 'standard_cost' | 'last_price' | null;
  readonly edition: string;
  readonly buyerNote: string;
  readonly net: number;
  readonly parts: readonly PartView[];
  /** Whether it came out of a tray and can go back into it. */
  readonly fromTray: boolean;
  readonly unordered: boolean;
  readonly printedNote: string;
  readonly internalNote: string;
  readonly priceReason: PriceReason | null;
  /** Taken off the line, in percent. */
  readonly discount: string;
  /** Whom it is bought for one to one: customers' orders, places' requests, a job of ours. */
  readonly boughtFor: readonly string[];
  /** What it is expected to cost on the shelf, in the company's currency; null for what was taken off, or without a rate. */
  readonly landed: CostOfLine | null;
  /** The duty rate of its code and origin; null where none is on file. */
  readonly duty: string | null;
  /** How it is booked: as the line says, and as item and supplier have it. */
  readonly booking: {
    readonly own: LineBooking;
    readonly purpose: Purpose;
    readonly taxCategory: string;
    readonly account: string;
    readonly inspect: boolean;
    readonly matching: Matching;
    readonly costs: readonly { readonly to: string; readonly minor: number }[];
  };
};

/** What an order comes to besides its net. */
export type OrderSums = {
  readonly charges: readonly (ChargeOfOrder & {
    /** In the order's currency and the company's; null for what is left out, or without a rate. */
    readonly inOrder: number | null;
    readonly inBase: number | null;
    readonly spreadBy: string;
  })[];
  readonly tax: OrderTax;
  readonly total: number;
  readonly totalInBase: number | null;
  /** Goods and landed cost in the company's currency. */
  readonly goodsInBase: number | null;
  readonly landed: number | null;
  /** Kilograms and litres, in millionths, of what has them on file; and how many lines have none. */
  readonly weight: number;
  readonly volume: number;
  readonly noWeight: number;
  readonly noVolume: number;
};

export type OrderView = {
  readonly head: OrderRow;
  readonly lines: readonly LineView[];
  /** In its currency; and in the company's, null where no rate is on file. */
  readonly net: number;
  readonly netInBase: number | null;
  readonly baseCurrency: string;
  readonly sums: OrderSums;
  readonly came: Progress;
  readonly findings: readonly Finding[];
  /** What it allows in its state, and the person may do. */
  readonly can: readonly OrderAction[];
  readonly aboveLimit: number | null;
  /** The person entered it, and somebody else has to approve it. */
  readonly fourEyes: boolean;
  /** What was said with the question for its approval, or why it was refused. */
  readonly word: ApprovalWord | null;
  /** Who else may approve it, and whether mail reaches them. */
  readonly approvers: readonly { readonly id: number; readonly name: string; readonly byMail: boolean }[];
  /** Who else works here and can be told of it by mail. */
  readonly colleagues: readonly { readonly id: number; readonly name: string }[];
  /** What it says otherwise than its supplier was last told. */
  readonly otherwise: readonly LineDifference[];
  readonly amendments: readonly AmendmentView[];
  readonly history: readonly { at: string; who: string; action: string; before: string | null; after: string | null }[];
  readonly receipts: readonly ReceiptRow[];
  /** Terms on file that this order says otherwise. */
  readonly standing: { readonly payment: string; readonly delivery: string; readonly currency: string };
  /** Where its invoice goes: as it says, else as its places and the company say. */
  readonly invoiceTo: string;
  /** Places that a line can be for. */
  readonly places: readonly { readonly id: number; readonly name: string }[];
  readonly today: string;
};

/** How a line is booked, what item, category and supplier say where it says nothing. */
function bookingOf(l: OrderLineRow, net: number, matching: Matching): LineView['booking'] {
  const { purpose, taxCategory, costTo, inspect } = l;
  const account = costTo || [l.itemAccount ?? '', l.itemDepartment ?? ''].filter(Boolean).join(' ');
  const shares = parseCostShares(account);
  const split = shares.ok && shares.value.length > 1 ? shares.value : [];
  const amounts = costByShare(net, split);
  return {
    own: { purpose, taxCategory, costTo, inspect, matching: l.matching },
    ...{ purpose: purposeOf(l), taxCategory: taxCategory || l.itemTaxCategory || '', account },
    inspect: (inspect ?? l.itemInspect ?? 0) === 1,
    matching: l.matching ?? matching,
    costs: split.map((s, i) => ({
      to: [s.account, s.department].filter(Boolean).join(' '),
      minor: amounts[i] as number,
    })),
  };
}

const lineView = (
  l: OrderLineRow,
  currency: string,
  net: number,
  parts: readonly PartView[],
  fromTray: boolean,
  cost: {
    readonly landed: CostOfLine | null;
    readonly duty: string | null;
    readonly matching: Matching;
    readonly boughtFor: readonly string[];
  },
): LineView => {
  const price = priceOf(l);
  const plain = (d: string) => toDecimal(fromDecimal(d));
  return {
    id: l.id,
    lineNo: l.lineNo,
    kind: l.kind,
    itemId: l.itemId,
    itemNumber: l.itemNumber,
    family: l.familyId !== null,
    description: l.description,
    supplierItemNumber: l.supplierItemNumber,
    makersNumber: l.makersNumber ?? '',
    packName: l.packName,
    unit: l.unitName ?? '',
    packs: fromDecimal(l.packQuantity),
    base: fromDecimal(l.baseQuantity),
    price: price?.amount ?? null,
    per: plain(l.pricePer),
    expected: l.expectedAmount === null ? null : plain(l.expectedAmount),
    each: price && eachText(price, currency),
    freeOfCharge: l.freeOfCharge === 1,
    origin: l.priceOrigin,
    edition: l.edition,
    buyerNote: l.buyerNote ?? '',
    net,
    parts,
    fromTray,
    unordered: l.unordered === 1,
    ...{ printedNote: l.printedNote, internalNote: l.internalNote, priceReason: l.priceReason },
    ...{ discount: plain(l.discountPercent), landed: cost.landed, duty: cost.duty },
    ...{ boughtFor: cost.boughtFor, booking: bookingOf(l, net, cost.matching) },
  };
};

const millionths = ({ num, den }: Fraction): number => Number(divideHalfUp(num * 1_000_000n, den));

function sumsOf(costs: CostOfOrder, exchange: Exchange, currency: string): OrderSums {
  const { cost } = costs;
  const counted = new Map(cost.charges.map((c) => [c.charge.name, c]));
  return {
    charges: costs.charges.map((c) => {
      const sum = counted.get(c.name);
      return {
        ...{ ...c, inOrder: sum?.inOrder ?? null, inBase: sum?.inBase ?? null, spreadBy: sum?.spread ?? c.spread },
      };
    }),
    ...{ tax: cost.tax, total: cost.total, totalInBase: exchange.toBase(cost.total, currency) },
    ...{ goodsInBase: cost.landed?.goods ?? null, landed: cost.landed?.sum ?? null },
    ...{ weight: millionths(costs.weight), volume: millionths(costs.volume) },
    ...{ noWeight: costs.noWeight, noVolume: costs.noVolume },
  };
}

/** One order as its page shows it. Errors: forbidden, not_found. */
export async function readOrder(deps: Deps, actor: Actor, orderId: number): Promise<Result<OrderView, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<OrderView, Failure>>(deps.pool, async (tx) => {
    const head = await findOrder(tx, orderId);
    if (!head) return err({ kind: 'not_found', what: 'order' });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await readOrderLines(tx, [orderId]);
    const parts = await readParts(tx, [orderId]);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l]));
    const totals = orderTotals(lines.map(totalLineOf), head.currency);
    const customers = await readCustomersOfLines(
      tx,
      parts.flatMap((p) => p.customerLineId ?? []),
    );
    const whereTo = ({ locationId, customerLineId }: PartRow): Pick<PartView, 'location' | 'address' | 'straight'> => {
      const to = customers.get(customerLineId ?? 0);
      if (to) {
        const address = [to.customer, to.address].filter(Boolean).join('\n');
        return { location: to.customer, address, straight: { orderId: to.orderId, order: to.number } };
      }
      const place = places.get(locationId ?? 0);
      const address = deliveryAddress(place ?? { address: '' }, company.invoiceAddress);
      return { location: place?.name ?? '', address, straight: null };
    };
    const byLine = groupBy(parts, (p) => p.lineId);
    const partViews = (lineId: number): PartView[] =>
      (byLine.get(lineId) ?? []).map((p) => ({
        id: p.id,
        ...whereTo(p),
        packs: fromDecimal(p.packQuantity),
        base: fromDecimal(p.baseQuantity),
        received: fromDecimal(p.received),
        cancelled: fromDecimal(p.cancelled),
        ...{ wantedDate: p.wantedDate, promisedDate: p.promisedDate, confirmedDate: p.confirmedDate },
        ...{ locationId: p.locationId, movable: isMovable(p) },
      }));
    const fromTray = new Set(parts.flatMap((p) => (p.trayLineId === null ? [] : [p.lineId])));
    const supplier = (await readSuppliers(tx)).find((x) => x.id === head.supplierId);
    const approvers = await readApprovers(tx, company.currency, today);
    const ordered = new Set(lines.flatMap((l) => (l.unordered === 1 ? [] : [l.id])));
    const used = [...places.values()].filter((l) => parts.some((p) => p.locationId === l.id && ordered.has(p.lineId)));
    const history = await readChanges(tx, 'order', orderId);
    const exchange = await readExchange(tx, company.currency, today);
    const netInBase = exchange.toBase(totals.net, head.currency);
    const costs = await costOfOrder(tx, head, lines, exchange, today);
    const jobs = await readJobsOf(tx, orderId);
    const lineOfPart = new Map(parts.map((p) => [p.id, p.lineId]));
    const promised = groupBy(await readPromisedOf(tx, orderId), (r) => lineOfPart.get(r.partId) ?? 0);
    const boughtFor = (id: number) => {
      const job = jobs.get(id);
      const names = (promised.get(id) ?? []).map((r) => r.name);
      return [...new Set([...names, ...(job ? [`job ${job.job}${job.name ? `, ${job.name}` : ''}`] : [])])];
    };
    const costAt = new Map(costs.lineIds.map((id, i) => [id, costs.cost.landed?.lines[i] ?? null]));
    const within = may(actor, 'orders.approve', { amount: { net: netInBase ?? 0, currency: company.currency } });
    return ok({
      head,
      lines: lines.map((l, i) =>
        lineView(l, head.currency, totals.lines[i] as number, partViews(l.id), fromTray.has(l.id), {
          ...{
            landed: costAt.get(l.id) ?? null,
            duty: costs.duties.get(l.id) ?? null,
            matching: head.supplierMatching,
            boughtFor: boughtFor(l.id),
          },
        }),
      ),
      net: totals.net,
      netInBase,
      baseCurrency: company.currency,
      sums: sumsOf(costs, exchange, head.currency),
      came: progress(goods(parts).map(quantities)),
      findings: findingsOf(
        ...([head, lines, parts, today, netInBase !== null, costs] as const),
        isDrafted(head.state)
          ? await beyondOf(tx, { today, currency: company.currency, exchange }, lines, parts, places)
          : {},
      ),
      can: actionsOf(factsOf(head, parts)).filter((a) => may(actor, actionRights[a]).ok),
      fourEyes: head.createdById === actor.userId && needsFourEyes((await readOrderRules(tx)).fourEyes, netInBase ?? 0),
      approvers: approvers(totals.net, head.currency, head.createdById).filter((u) => u.id !== actor.userId),
      colleagues: (await readUsers(tx)).flatMap((u) =>
        u.active === 1 && u.mail !== '' && u.id !== actor.userId ? { id: u.id, name: u.name } : [],
      ),
      otherwise: await toldOtherwise(tx, orderId, lines, parts),
      amendments: (await readAmendments(tx, orderId)).map(amendmentView),
      aboveLimit: !within.ok && within.error.kind === 'above_limit' ? within.error.limit : null,
      ...{ history, word: approvalWord(head.state, history) },
      receipts: await readReceiptsOf(tx, orderId),
      standing: {
        payment: supplier?.paymentTerms ?? '',
        delivery: supplier?.deliveryTerms ?? '',
        currency: supplier?.currency ?? head.currency,
      },
      invoiceTo: head.invoiceAddress || invoiceAddress(used, company.invoiceAddress),
      places: [...places.values()]
        .filter((l) => l.closed === 0 && (actor.locations === null || actor.locations.includes(l.id)))
        .map(({ id, name }) => ({ id, name })),
      today,
    });
  });
}
