'use client';

import type { LineView } from '@/services/purchase/readOrder';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { Labelled } from '../frame/labelled';
import { SumLine } from '../reckoning/reckoning';
import { Cell, useEdit } from './order-cells.client';
import { matchingWords } from './words';

/** What else a line says: its discount, how it is booked, and by when its supplier promised each delivery. */
export function LineMore(props: {
  orderId: number;
  line: LineView;
  currency: string;
  places: readonly { readonly id: number; readonly name: string }[];
}) {
  const { orderId, line, currency, places } = props;
  const format = useFormat();
  const edit = useEdit(orderId);
  const { booking } = line;
  const { own } = booking;
  const about = line.description;
  const chosen = (
    field: 'purpose' | 'inspect' | 'matching',
    was: string,
    label: string,
    options: [string, string][],
  ) => (
    <Labelled label={label}>
      <select
        className="entry"
        aria-label={`${label}: ${about}`}
        value={was}
        onChange={(e) => edit({ field, lineId: line.id, was, now: e.target.value })}
      >
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </Labelled>
  );
  const stock = line.kind === 'stock' || line.kind === 'straight_to_customer';
  const inspect = own.inspect === null ? '' : own.inspect === 1 ? 'yes' : 'no';
  const usual = (words: string) => `as usual: ${words}`;
  return (
    <div className="flex flex-wrap items-start gap-x-4 gap-y-2">
      <Labelled label="Discount %">
        <Cell
          label={`Discount on ${about}`}
          value={line.discount === '0' ? '' : line.discount}
          placeholder="none"
          className="figure w-16"
          save={(now) => edit({ field: 'discount', lineId: line.id, was: line.discount, now })}
        />
      </Labelled>
      <Labelled label="Account">
        <Cell
          label={`Account of ${about}`}
          value={own.costTo}
          placeholder={own.costTo === '' && booking.account !== '' ? booking.account : '3400 60, 4930 window 40'}
          className="w-52"
          save={(now) => edit({ field: 'costTo', lineId: line.id, was: own.costTo, now })}
        />
        {booking.costs.length > 0 && (
          <span className="second">
            {booking.costs.map((c) => `${c.to}: ${format.amount(c.minor, currency)}`).join(' · ')}
          </span>
        )}
      </Labelled>
      {chosen('purpose', own.purpose ?? '', 'Bought for', [
        ['', own.purpose === null ? usual(purposeWords[booking.purpose]) : 'as usual'],
        ['resale', purposeWords.resale],
        ['own_use', purposeWords.own_use],
      ])}
      <Labelled label="Tax category">
        <Cell
          label={`Tax category of ${about}`}
          value={own.taxCategory}
          placeholder={booking.taxCategory || 'the usual'}
          className="w-28"
          save={(now) => edit({ field: 'taxCategory', lineId: line.id, was: own.taxCategory, now })}
        />
      </Labelled>
      {stock &&
        chosen('inspect', inspect, 'When it comes', [
          ['', own.inspect === null ? usual(booking.inspect ? 'inspected' : 'put away') : 'as usual'],
          ['yes', 'inspected first'],
          ['no', 'put away at once'],
        ])}
      {chosen('matching', own.matching ?? '', 'Invoice held against', [
        ['', own.matching === null ? usual(matchingWords[booking.matching]) : 'as usual'],
        ['two_way', matchingWords.two_way],
        ['three_way', matchingWords.three_way],
      ])}
      {line.parts
        .filter((p) => p.movable)
        .map((p) => (
          <Labelled key={p.id} label={line.parts.length > 1 ? `Deliver ${format.quantity(p.packs)} to` : 'Deliver to'}>
            <select
              className="entry"
              aria-label={`Deliver ${about} to`}
              value={p.locationId ?? ''}
              onChange={(e) =>
                edit({ field: 'place', partId: p.id, was: String(p.locationId ?? ''), now: e.target.value })
              }
            >
              {places.map((l) => (
                <option key={l.id} value={l.id}>
                  {l.name}
                </option>
              ))}
            </select>
          </Labelled>
        ))}
      {line.parts
        .filter((p) => p.locationId !== null)
        .map((p, i) => (
          <Labelled key={p.id} label={line.parts.length > 1 ? `Promised, delivery ${i + 1}` : 'Promised by them'}>
            <Cell
              label={`Promised date of ${about}, ${p.location}`}
              value={p.promisedDate ? format.date(p.promisedDate) : ''}
              placeholder="not yet"
              className="w-24"
              save={(now) => edit({ field: 'promisedDate', partId: p.id, was: p.promisedDate ?? '', now })}
            />
          </Labelled>
        ))}
    </div>
  );
}

export const purposeWords = { resale: 'resale', own_use: 'own use' } as const;

/** The sum that leads to what a line is expected to cost on the shelf. */
export function LineLanded({
  line,
  charges,
  currency,
}: {
  line: LineView;
  /** Names of the charges that its shares are of, with what they go into. */
  charges: readonly { readonly name: string; readonly into: 'stock' | 'expense' | 'recoverable' }[];
  currency: string;
}) {
  const format = useFormat();
  const { landed } = line;
  if (!landed) return null;
  const shares = charges.map((c, i) => ({ ...c, minor: landed.shares[i] ?? 0 })).filter((c) => c.minor !== 0);
  const signed = (minor: number) => ({
    operator: minor < 0 ? '−' : '+',
    figure: format.amount(Math.abs(minor), currency),
  });
  return (
    <div className="max-w-96">
      <SumLine label={`Goods, ${currency}`} figure={format.amount(landed.goods, currency)} />
      {shares
        .filter((c) => c.into === 'stock')
        .map((c) => (
          <SumLine key={c.name} {...signed(c.minor)} label={`Share of ${c.name}`} />
        ))}
      {landed.tax !== 0 && <SumLine {...signed(landed.tax)} label="Tax that is not recovered" />}
      <SumLine
        label="Landed"
        origin={
          landed.each === null
            ? undefined
            : `over ${format.quantity(line.base)} ${plural(line.unit, line.base)}: ${format.price(landed.each)} each`
        }
        figure={format.amount(landed.landed, currency)}
        result
      />
      {shares.some((c) => c.into !== 'stock') && (
        <p className="second">
          not in it:{' '}
          {shares
            .filter((c) => c.into !== 'stock')
            .map((c) => `${c.name} ${format.amount(c.minor, currency)}`)
            .join(', ')}
        </p>
      )}
      {line.duty !== null && <p className="second">Duty rate {format.percent(line.duty)} %</p>}
    </div>
  );
}
