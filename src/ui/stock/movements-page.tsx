import Form from 'next/form';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { fromDecimal } from '@/core/quantity';
import { movementKinds } from '@/core/stock';
import type { MovementsAsked, MovementsView } from '@/services/stock/readMovements';
import { type Format, plural } from '../format';
import { AskedFields } from '../frame/asked-fields';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';
import { movementWords } from './words';

type Line = MovementsView['movements'][number];

/** Everything that moved, newest first; of one item at one place with what was there after each. */
export function MovementsPage({
  view,
  asked,
  at,
  format,
  takeSales,
}: {
  view: MovementsView;
  asked: MovementsAsked;
  at: string;
  format: Format;
  /** What brings sales in, over the list of everything. */
  takeSales?: ReactNode;
}) {
  const { movements, item, currency } = view;
  const query = (more: Record<string, string>) => {
    const all = {
      ...{
        q: asked.search,
        item: String(asked.itemId ?? ''),
        at,
        who: String(asked.userId ?? ''),
        kind: asked.kind ?? '',
      },
      ...{ reason: String(asked.reasonId ?? ''), document: asked.document, from: asked.from, to: asked.to, ...more },
    };
    return `/stock/movements?${new URLSearchParams(Object.entries(all).filter(([, v]) => v !== ''))}`;
  };
  const running = item !== null && asked.locationId !== null;
  const last = movements.at(-1);
  return (
    <WholeList>
      <ListBar title="Movements" about={item ? `${item.name} ${item.number}` : 'of everything, newest first'}>
        <span className="ml-auto" />
        {item && (
          <Link className="link" href={query({ item: '', q: '' })}>
            of everything
          </Link>
        )}
        {!item && takeSales}
        <ExportLinks of="Movements" path={query({}).replace('/stock/movements', '/api/exports/movements')} />
      </ListBar>
      <Form action="/stock/movements" className="flex flex-wrap items-center gap-2 border-b border-rule px-4 py-2">
        {at && <input type="hidden" name="at" value={at} />}
        {asked.itemId !== null && <input type="hidden" name="item" value={asked.itemId} />}
        <input
          name="q"
          className="entry w-44"
          placeholder="item: name or number"
          aria-label="Item"
          defaultValue={asked.search}
          disabled={asked.itemId !== null}
        />
        <select name="kind" className="entry" aria-label="Kind" defaultValue={asked.kind ?? ''}>
          <option value="">All kinds</option>
          {movementKinds.map((k) => (
            <option key={k} value={k}>
              {movementWords[k]}
            </option>
          ))}
        </select>
        <select name="reason" className="entry" aria-label="Reason" defaultValue={asked.reasonId ?? ''}>
          <option value="">All reasons</option>
          {view.reasons.map((r) => (
            <option key={r.id} value={r.id}>
              {r.name}
            </option>
          ))}
        </select>
        <AskedFields people={view.people} asked={asked}>
          <input
            name="document"
            className="entry w-32"
            placeholder="document"
            aria-label="Number of a document"
            defaultValue={asked.document}
          />
        </AskedFields>
      </Form>
      {item && <Balance view={view} on={asked.to || view.today} format={format} unit={item.unit} />}
      {movements.length === 0 ? (
        <Notice title="Nothing moved like this">
          <Link className="link" href="/stock/movements">
            Show all movements
          </Link>
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>Day</th>
              {!item && <th>Item</th>}
              <th>Where</th>
              <th>What</th>
              <th className="figure">Change</th>
              {running && <th className="figure">On hand after</th>}
              <th className="figure max-sm:hidden">Value</th>
              {running && <th className="figure max-sm:hidden">Worth after</th>}
              <th className="max-md:hidden">By</th>
            </tr>
          </thead>
          <tbody>
            {movements.map((m) => (
              <tr key={m.id} className="two">
                <td className="whitespace-nowrap">{format.date(m.businessDate)}</td>
                {!item && (
                  <td>
                    <Link className="name block" prefetch={false} href={query({ item: String(m.itemId), q: '' })}>
                      {m.itemName}
                    </Link>
                    <span className="code">{m.itemNumber}</span>
                  </td>
                )}
                <td>{m.location}</td>
                <td>
                  <What m={m} />
                  {m.lots && <span className="code block">{m.lots}</span>}
                </td>
                <td className="figure font-semibold">{signed(m.onHandChange, format)}</td>
                {running && (
                  <td className="figure">
                    {m.runningQuantity === null ? '' : format.quantity(fromDecimal(m.runningQuantity))}
                  </td>
                )}
                <td className="figure max-sm:hidden">
                  {format.amount(m.valueChange, currency)}
                  {m.variance !== 0 && (
                    <span className="second block">variance {format.amount(m.variance, currency)}</span>
                  )}
                </td>
                {running && (
                  <td className="figure max-sm:hidden">
                    {m.runningValue === null ? '' : format.amount(m.runningValue, currency)}
                  </td>
                )}
                <td className="second max-md:hidden">{m.who ?? '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {view.more && last && (
        <p className="px-4 py-3">
          <Link className="link" href={query({ before: String(last.id) })}>
            Older ones
          </Link>
        </p>
      )}
    </WholeList>
  );
}

const signed = (text: string, format: Format): string => {
  const q = fromDecimal(text);
  return q === 0 ? '–' : `${q > 0 ? '+' : ''}${format.quantity(q)}`;
};

/** What it was, with a way to its document. */
function What({ m }: { m: Line }) {
  const kind = movementWords[m.kind as keyof typeof movementWords] ?? m.kind;
  const href =
    m.orderId !== null
      ? `/orders/${m.orderId}`
      : m.documentKind === 'transfer' && m.documentId !== null
        ? `/stock/transfers/${m.documentId}`
        : null;
  return (
    <>
      {kind}
      {m.reason && `, ${m.reason.toLowerCase()}`}
      <span className="second block">
        {m.documentNumber &&
          (href ? (
            <Link className="link" prefetch={false} href={href}>
              {m.documentNumber}
            </Link>
          ) : (
            m.documentNumber
          ))}
        {m.note && ` ${m.note}`}
      </span>
    </>
  );
}

/** What was there of the item at the close of a day. */
function Balance({ view, on, format, unit }: { view: MovementsView; on: string; format: Format; unit: string }) {
  const sum = view.balance.reduce((a, b) => a + fromDecimal(b.quantity), 0);
  const worth = view.balance.reduce((a, b) => a + b.value, 0);
  return (
    <p className="border-b border-rule px-4 py-2">
      At the close of {format.dateWithYear(on)}:{' '}
      <strong className="font-semibold">
        {format.quantity(sum)} {plural(unit, sum)}
      </strong>
      , worth {format.money(worth, view.currency)}
      {view.balance.length > 1 && (
        <span className="second">
          {' '}
          ({view.balance.map((b) => `${b.location} ${format.quantity(fromDecimal(b.quantity))}`).join(', ')})
        </span>
      )}
    </p>
  );
}
