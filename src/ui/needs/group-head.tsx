import type { NeedGroup } from '@/services/planning/readNeeds';
import type { Format } from '../format';
import { Cell } from '../grid/grid.client';
import { FillGauge } from '../marks/fill-gauge';

/** The head of a supplier's needs: when it would arrive, and how full its tray is against its minimum. */
export function GroupHead(props: { group: NeedGroup; trayNet: number; format: Format; currency: string }) {
  const { format, currency, trayNet } = props;
  const { supplier, arrives, orderMinimum } = props.group;
  return (
    <Cell className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-2.5 leading-tight">
      <span className="font-semibold">{supplier ?? 'No supplier yet'}</span>
      <span className="second">
        {supplier === null
          ? 'stays here until the item has one'
          : `any working day · arrives ${format.date(arrives ?? '')}`}
      </span>
      {supplier !== null && (
        <span className="second ml-auto flex items-center gap-2 max-sm:hidden">
          {orderMinimum > 0 && (
            <FillGauge value={trayNet} target={orderMinimum} label="Tray against the supplier’s minimum" />
          )}
          {orderMinimum > 0
            ? `tray ${format.amount(trayNet, currency)} of ${format.amount(orderMinimum, currency)} minimum`
            : trayNet > 0
              ? `tray ${format.amount(trayNet, currency)}, no minimum`
              : 'no minimum'}
        </span>
      )}
    </Cell>
  );
}
