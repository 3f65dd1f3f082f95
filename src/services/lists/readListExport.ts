import { minorToDecimal } from '@/core/money';
import type { Actor } from '@/core/people';
import type { PolicyField } from '@/core/policy';
import { toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import type { Column, Values } from '@/core/sheets';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type DecisionView, readDecisionRows } from '../planning/readDecisions';
import { type NeedEntry, readNeedRows } from '../planning/readNeeds';
import { type PolicyLine, readPolicyLines } from '../planning/readPolicies';
import { type PromiseLine, readPromiseRows } from '../promise/readPromises';
import { type OrderSummary, readOrderRows } from '../purchase/readOrders';
import { readTrayRows, type TrayEntry } from '../purchase/readTrays';
import { sheetKinds } from '../sheets/kinds';
import { readStockRows, type StockAt, type StockLine } from '../stock/readStock';
import { day, type FileField, figure, type ListFile, words } from './fileColumns';
import { type AskedRows, PAGE, type Page } from './keptList';

type Written = { readonly currency: string; readonly placeCodes: ReadonlyMap<number, string> };
type Field<R> = FileField<R, Written>;
type Sheet<R> = {
  readonly title: string;
  readonly read: (deps: Deps, actor: Actor, asked: AskedRows) => Promise<Result<Page<R>, Failure>>;
  /** False for what has no row of its own. */
  readonly has: (row: R) => boolean;
  readonly fields: readonly Field<R>[];
};

type Need = Extract<NeedEntry, { kind: 'need' }>;
type TrayLine = Extract<TrayEntry, { kind: 'line' }>;

/** Rows of a list in groups, each with the name its group's head bears; the head may be on an earlier page. */
function underHeads<E, R>(
  read: (deps: Deps, actor: Actor, asked: AskedRows) => Promise<Result<Page<E>, Failure>>,
  headOf: (entry: E) => string | null,
  rowOf: (entry: E) => R | null,
) {
  let head = '';
  return async (
    deps: Deps,
    actor: Actor,
    asked: AskedRows,
  ): Promise<Result<Page<(R & { head: string }) | null>, Failure>> => {
    const page = await read(deps, actor, asked);
    if (!page.ok) return page;
    const rows = page.value.rows.map((entry) => {
      head = headOf(entry) ?? head;
      const row = rowOf(entry);
      return row && { ...row, head };
    });
    return ok({ from: page.value.from, rows });
  };
}

const needs = (): Sheet<(Need & { head: string }) | null> => ({
  title: 'Needs',
  read: underHeads(
    readNeedRows,
    () => null,
    (e) => (e.kind === 'need' && e.open ? e : null),
  ),
  has: (n) => n !== null,
  fields: [
    words('supplier', 'Supplier', (n) => n?.supplier?.name ?? n?.sentFrom?.location ?? ''),
    words('item', 'Item', (n) => n?.itemNumber ?? ''),
    words('name', 'Name', (n) => n?.itemName ?? ''),
    words('location', 'Location', (n) => n?.location ?? ''),
    words('causes', 'Why', (n) => n?.causes.join(', ').replaceAll('_', ' ') ?? ''),
    figure('free', 'Free', (n) => n && toDecimal(n.gauge.free)),
    figure('coming', 'Coming', (n) => n && toDecimal(n.gauge.coming + n.gauge.inTrays)),
    figure('minimum', 'Minimum', (n) => (n?.gauge.min == null ? null : toDecimal(n.gauge.min))),
    figure('lasts', 'Lasts days', (n) => (n?.coverDays == null ? null : Math.floor(n.coverDays))),
    day('runs_out', 'Runs out', (n) => n?.runOut ?? null),
    day('arrives', 'Here on', (n) => n?.arrives ?? null),
    figure('packs', 'Packs to order', (n) => n && toDecimal(n.packs)),
    words('pack', 'Pack', (n) => n?.packName ?? ''),
    figure('base', 'In base units', (n) => n && toDecimal(n.base)),
    words('unit', 'Unit', (n) => n?.unit ?? ''),
    figure('net', 'Total net', (n, w) => (n?.net == null ? null : minorToDecimal(n.net, w.currency))),
  ],
});

const decisions: Sheet<DecisionView> = {
  title: 'Decisions',
  read: readDecisionRows,
  has: () => true,
  fields: [
    words('item', 'Item', (d) => d.itemNumber),
    words('name', 'Name', (d) => d.itemName),
    words('location', 'Location', (d) => d.location),
    words('decided', 'Decided', (d) => d.kind.replaceAll('_', ' ')),
    figure('packs', 'Packs', (d) => (d.kind === 'accept' ? toDecimal(d.packs) : null)),
    words('pack', 'Pack', (d) => (d.kind === 'accept' ? d.packName : '')),
    words('from', 'From', (d) => d.from ?? ''),
    day('until', 'Until', (d) => d.until),
    words('reason', 'Reason', (d) => d.reason),
    words('who', 'By', (d) => d.who),
    words('at', 'At (UTC)', (d) => d.at),
    figure('short_then', 'Short then', (d) => toDecimal(d.shortage)),
    figure('short_now', 'Short now', (d) => toDecimal(d.shortNow)),
    words('unit', 'Unit', (d) => d.unit),
  ],
};

const trays = (): Sheet<(TrayLine & { head: string }) | null> => ({
  title: 'Trays',
  read: underHeads(
    readTrayRows,
    (e) => (e.kind === 'tray' ? e.tray.supplier : null),
    (e) => (e.kind === 'line' ? e : null),
  ),
  has: (l) => l !== null,
  fields: [
    words('supplier', 'Supplier', (l) => l?.head ?? ''),
    words('item', 'Item', (l) => l?.itemNumber ?? ''),
    words('name', 'Name', (l) => l?.itemName ?? ''),
    words('location', 'Location', (l) => l?.location ?? ''),
    figure('packs', 'Packs', (l) => l && toDecimal(l.packs)),
    words('pack', 'Pack', (l) => l?.packName ?? ''),
    figure('base', 'In base units', (l) => l && toDecimal(l.base)),
    words('unit', 'Unit', (l) => l?.unit ?? ''),
    figure('each', 'Each', (l) => l?.each ?? null),
    figure('net', 'Total net', (l) => (l?.net == null ? null : minorToDecimal(l.net, l.currency))),
    words('currency', 'Currency', (l) => l?.currency ?? ''),
  ],
});

const orders: Sheet<OrderSummary> = {
  title: 'Orders',
  read: readOrderRows,
  has: () => true,
  fields: [
    words('number', 'Order', (o) => o.number ?? ''),
    words('supplier', 'Supplier', (o) => o.supplier),
    words('state', 'State', (o) => o.state),
    words('came', 'Came', (o) => o.came),
    day('ordered_on', 'Ordered on', (o) => o.orderDate),
    day('next', 'Next expected', (o) => o.nextDate),
    words('places', 'For', (o) => o.places),
    figure('lines', 'Lines', (o) => o.lines),
    figure('net', 'Total net', (o) => minorToDecimal(o.net, o.currency)),
    words('currency', 'Currency', (o) => o.currency),
  ],
};

const policyColumn = (key: string) => sheetKinds.policies.columns.find((c) => c.key === key) as Column;
/** Columns of the template beside item, place and kind, with the value of a setting that each holds. */
const ownColumns: readonly (readonly [string, PolicyField])[] = [
  ['min', 'min'],
  ['max', 'max'],
  ['order_quantity', 'fixed'],
  ['cover_days', 'coverDays'],
  ['safety_stock', 'safety'],
  ['window_days', 'windowDays'],
  ['use_stock', 'useStock'],
  ['keep_safety', 'keepSafety'],
  ['display_minimum', 'displayMin'],
  ['reserve', 'reserve'],
  ['trigger', 'trigger'],
  ['refill', 'refill'],
  ['rounding', 'rounding'],
  ['supply', 'supply'],
  ['target_kind', 'targetKind'],
  ['target_percent', 'targetThousandths'],
];
/** What is set, in the columns of the template, so that it imports again; what a place inherits has no row. */
const policies: Sheet<PolicyLine> = {
  title: 'Policies',
  read: readPolicyLines,
  has: (l) => Object.keys(l.own).length > 0,
  fields: [
    { column: policyColumn('item'), of: (l) => l.number },
    {
      column: policyColumn('location'),
      of: (l, w) => (l.locationId === null ? '' : (w.placeCodes.get(l.locationId) ?? '')),
    },
    { column: policyColumn('policy'), of: (l) => l.own.kind ?? 'inherit' },
    ...ownColumns.map(([key, field]) => ({
      column: policyColumn(key),
      of: (l: PolicyLine) => {
        const text = l.own[field];
        if (text === undefined) return null;
        return text === 'yes' ? '1' : text === 'no' ? '0' : text;
      },
    })),
    {
      column: policyColumn('sent_from'),
      of: (l, w) => (l.own.supplyPlace === undefined ? null : (w.placeCodes.get(Number(l.own.supplyPlace)) ?? null)),
    },
    words('figure_name', 'Name (figure)', (l) => l.name),
    figure('figure_free', 'Free (figure)', (l) => l.gauge && toDecimal(l.gauge.free)),
    figure('figure_need', 'To order (figure)', (l) => toDecimal(l.need)),
  ],
};

type AtPlace = StockAt & Pick<StockLine, 'number' | 'name' | 'unit'>;
/** A row for each item and place. */
const stock: Sheet<AtPlace> = {
  title: 'Stock',
  read: async (deps, actor, asked) => {
    const page = await readStockRows(deps, actor, asked);
    if (!page.ok) return page;
    const rows = page.value.rows.flatMap(({ number, name, unit, places }) =>
      places.map((p) => ({ ...p, number, name, unit })),
    );
    return ok({ from: page.value.from, rows });
  },
  has: () => true,
  fields: [
    words('item', 'Item', (r) => r.number),
    words('name', 'Name', (r) => r.name),
    words('unit', 'Unit', (r) => r.unit),
    words('location', 'Location', (r, w) => w.placeCodes.get(r.locationId) ?? r.location),
    figure('on_hand', 'On hand', (r) => toDecimal(r.onHand)),
    figure('allocated', 'Allocated', (r) => toDecimal(r.allocated)),
    figure('inspection', 'In inspection', (r) => toDecimal(r.inspection)),
    figure('blocked', 'Blocked', (r) => toDecimal(r.blocked)),
    figure('free', 'Free', (r) => toDecimal(r.free)),
    figure('on_order', 'On order', (r) => toDecimal(r.onOrder)),
    figure('in_drafts', 'In drafts and trays', (r) => toDecimal(r.inDrafts)),
    figure('in_transit', 'In transit', (r) => toDecimal(r.inTransit)),
    figure('minimum', 'Minimum', (r) => (r.gauge.min === null ? null : toDecimal(r.gauge.min))),
    figure('maximum', 'Maximum', (r) => (r.gauge.max === null ? null : toDecimal(r.gauge.max))),
    figure('above', 'Above maximum', (r) => toDecimal(r.excess)),
    figure('cover', 'Lasts days', (r) => (r.coverDays === null ? null : Math.floor(r.coverDays))),
    figure('surplus', 'Can be sent', (r) => toDecimal(r.surplus)),
    figure('value', 'Value', (r, w) => minorToDecimal(r.value, w.currency)),
  ],
};

const promises: Sheet<PromiseLine> = {
  title: 'Promises',
  read: readPromiseRows,
  has: () => true,
  fields: [
    words('order', 'Order', (l) => l.order),
    words('reference', 'Reference', (l) => l.reference ?? ''),
    words('customer', 'Customer', (l) => l.customer),
    words('item', 'Item', (l) => l.number),
    words('name', 'Name', (l) => l.name),
    words('location', 'Location', (l, w) => w.placeCodes.get(l.locationId) ?? l.location),
    day('wanted', 'Wanted', (l) => l.wanted),
    day('ship_by', 'To go out', (l) => l.shipBy),
    figure('ordered', 'Ordered', (l) => toDecimal(l.ordered)),
    figure('handed_over', 'Handed over', (l) => toDecimal(l.handedOver)),
    figure('ready', 'Ready', (l) => toDecimal(l.ready)),
    figure('short', 'Short', (l) => toDecimal(l.backordered)),
    words('unit', 'Unit', (l) => l.unit),
    words('covered_by', 'Covered by', (l) => l.covers.map((c) => c.ref ?? c.kind).join(', ')),
    figure('uncovered', 'Covered by nothing', (l) => toDecimal(l.missing)),
    day('promised', 'Promised', (l) => (l.backordered > 0 ? (l.promise?.date ?? null) : null)),
    day('cautious', 'With care', (l) => (l.backordered > 0 ? (l.promise?.cautious ?? null) : null)),
    figure('slack', 'Days to spare', (l) => (l.backordered > 0 ? l.slackDays : null)),
    day('told', 'Told', (l) => l.told?.date ?? null),
  ],
};

const sheets = {
  needs,
  decisions: () => decisions,
  trays,
  orders: () => orders,
  policies: () => policies,
  stock: () => stock,
  promises: () => promises,
} as const;
export type ExportedList = keyof typeof sheets;
export const isExportedList = (name: string): name is ExportedList => Object.hasOwn(sheets, name);

/** An open list as it is shown, row by row in its order, to be written to a file. Errors: forbidden, list_gone. */
export async function readListExport(
  deps: Deps,
  actor: Actor,
  asked: { readonly name: ExportedList; readonly list: string },
): Promise<Result<ListFile, Failure>> {
  const sheet = sheets[asked.name]() as Sheet<unknown>;
  const read = (from: number) => sheet.read(deps, actor, { list: asked.list, from });
  const first = await read(0);
  if (!first.ok) return first;
  const [company, places] = await readSnapshot(
    deps.pool,
    async (tx) => [await readCompany(tx), await readLocations(tx)] as const,
  );
  const written: Written = { currency: company.currency, placeCodes: new Map(places.map((l) => [l.id, l.code])) };
  async function* rows(): AsyncGenerator<Values[]> {
    for (let from = 0; ; from += PAGE) {
      const page = from === 0 ? first : await read(from);
      if (!page.ok || page.value.rows.length === 0) return;
      yield page.value.rows
        .filter((r) => sheet.has(r))
        .map((r) => Object.fromEntries(sheet.fields.map((f) => [f.column.key, f.of(r, written)])));
    }
  }
  return ok({
    title: sheet.title,
    today: todayOf(deps, company),
    columns: sheet.fields.map((f) => f.column),
    rows: rows(),
  });
}
