import type { NeedGroup } from '@/services/planning/readNeeds';
import { countOf, type Format } from '../format';
import { Cell } from '../grid/grid.client';
import { FillGauge } from '../marks/fill-gauge';
import { groupTitle } from './query';

/** The head of a group of needs. Of a supplier's: when it would arrive, and how full its tray is against its minimum. */
export function GroupHead(props: { group: NeedGroup; trayNet: number; format: Format; currency: string }) {
  const { format, trayNet } = props;
  const currency = props.group.currency || props.currency;
  // A foreign currency is named.
  const sum = (minor: number) =>
    currency === props.currency ? format.amount(minor, currency) : format.money(minor, currency);
  const { supplier, sentFrom, arrives, orderMinimum, by, title, count } = props.group;
  if (by !== 'supplier')
    return (
      <Cell className="flex min-w-0 flex-1 items-baseline gap-x-2.5">
        <span className="font-semibold">{groupTitle(by, title)}</span>
        <span className="second">{countOf(count, 'need')}</span>
      </Cell>
    );
  return (
    <Cell className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-2.5 leading-tight">
      <span className="font-semibold">{sentFrom ? `Sent from ${sentFrom}` : (supplier ?? 'No supplier yet')}</span>
      <span className="second">
        {sentFrom
          ? 'goes onto the next transfer from there'
          : supplier === null
            ? 'stays here until the item has one'
            : `arrives ${format.date(arrives ?? '')} if ordered today`}
      </span>
      {supplier !== null && (
        <span className="second ml-auto flex items-center gap-2 max-sm:hidden">
          {orderMinimum > 0 && (
            <FillGauge value={trayNet} target={orderMinimum} label="Tray against the supplier’s minimum" />
          )}
          {orderMinimum > 0
            ? `tray ${format.amount(trayNet, currency)} of ${sum(orderMinimum)} minimum`
            : trayNet > 0
              ? `tray ${sum(trayNet)}, no minimum`
              : 'no minimum'}
        </span>
      )}
    </Cell>
  );
}
