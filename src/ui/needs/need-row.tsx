import Link from 'next/link';
import type { KeyboardEvent } from 'react';
import { lineNet, pricePerBaseUnit } from '@/core/money';
import { baseQuantity, isWholePacks } from '@/core/packs';
import { checkLineQuantity } from '@/core/purchase';
import { entryText, MICRO } from '@/core/quantity';
import { fraction } from '@/core/units';
import type { NeedView } from '@/services/planning/readNeeds';
import type { ClientFailure } from '../command/send';
import { type Format, plural } from '../format';
import { Cause } from '../marks/cause';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { failureSentence } from '../sentences';
import { priceOf } from './priceOf';

export type RowState =
  | { readonly kind: 'open' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'accepted'; readonly tray: string; readonly packs: string }
  | { readonly kind: 'failed'; readonly failure: ClientFailure };

/** Why a need can't go into a tray, null when it can. */
export const cannotAccept = (n: NeedView): string | null => (n.supplierId === null ? 'no supplier yet' : null);

/** One need: item and place, why, stock, the quantity to order and what it comes to. */
export function NeedRow(props: {
  need: NeedView;
  index: number;
  format: Format;
  currency: string;
  today: string;
  state: RowState;
  typed: string | undefined;
  current: boolean;
  onFocus: () => void;
  onKey: (e: KeyboardEvent<HTMLTableRowElement>) => void;
  onType: (value: string) => void;
  onAccept: () => void;
}) {
  const { need, format, currency, state, typed } = props;
  const text = typed ?? entryText(need.packs);
  const checked = checkLineQuantity(text);
  const content = fraction(BigInt(need.content.num), BigInt(need.content.den));
  const base = checked.ok ? baseQuantity(checked.value, content) : null;
  const settled = state.kind === 'accepted' || state.kind === 'saving';
  const fault = state.kind === 'failed' ? failureSentence(state.failure, format) : null;
  const price = checked.ok ? priceOf(need, checked.value, props.today) : null;
  const net = price && base !== null ? lineNet(base, price, currency) : null;
  const cause = cannotAccept(need);
  return (
    <tr
      className={`two ${settled ? 'struck' : ''}`}
      data-need={need.id}
      data-current={props.current}
      tabIndex={props.current ? 0 : -1}
      aria-rowindex={props.index + 1}
      aria-selected={props.current}
      aria-label={`${need.itemName}, ${need.location}, below minimum, ${gaugeWords(need.gauge, format)}, order ${text} ${plural(need.packName, checked.ok ? checked.value : 0)}`}
      onFocus={props.onFocus}
      onKeyDown={props.onKey}
    >
      <td>
        <Link href={`/items/${need.itemId}`} className="name block" tabIndex={-1}>
          {need.itemName}
        </Link>
        <span className="second">
          <span className="code">{need.itemNumber}</span> · {need.location}
        </span>
      </td>
      <td className="max-sm:hidden">
        <Cause />
      </td>
      <td className="max-md:hidden">
        <LevelStrip gauge={need.gauge} format={format} id={`n${need.id}`} />
        <span className="second">{gaugeWords(need.gauge, format)}</span>
      </td>
      {state.kind === 'accepted' ? (
        <td colSpan={2} className="pl-6">
          <Link href="/trays" className="link" tabIndex={-1}>
            in the {state.tray} tray
          </Link>
          <span className="second block">
            {state.packs} {plural(need.packName, checked.ok ? checked.value : 0)}
          </span>
        </td>
      ) : (
        <>
          <td className="w-[62px] pl-6 pr-0">
            <input
              className="entry figure w-[54px]"
              inputMode="decimal"
              aria-label={`Quantity of ${need.itemName} at ${need.location} in ${plural(need.packName, 2 * MICRO)}`}
              aria-invalid={!checked.ok || fault !== null}
              aria-describedby={fault ? `fault-${need.id}` : undefined}
              value={text}
              tabIndex={-1}
              readOnly={settled}
              onFocus={(e) => typed === undefined && e.target.select()}
              onChange={(e) => props.onType(e.target.value)}
            />
          </td>
          <td className="min-w-32">
            <span className="flex items-center justify-between gap-2">
              <span>
                {checked.ok ? plural(need.packName, checked.value) : need.packName}
                <span className="second block">
                  {base === null ? '–' : `${format.quantity(base)} ${plural(need.unit, base)}`}
                </span>
                {checked.ok && !isWholePacks(checked.value) && need.packName !== need.unit && (
                  <span className="marker">not whole {plural(need.packName, 2 * MICRO)}</span>
                )}
              </span>
              {!settled && (
                <button
                  type="button"
                  className={`chip ${props.current ? '' : 'opacity-70'}`}
                  tabIndex={-1}
                  disabled={cause !== null}
                  title={cause ?? 'Accept into the tray (Enter)'}
                  aria-label={`Accept ${need.itemName} at ${need.location}`}
                  onClick={props.onAccept}
                >
                  {cause ?? 'Accept'}
                </button>
              )}
              {state.kind === 'saving' && <span className="second">saving</span>}
            </span>
            {fault && (
              <span className="fault block max-w-52" id={`fault-${need.id}`} role="alert">
                {fault}
              </span>
            )}
          </td>
        </>
      )}
      <td className="figure">
        {need.supplierId === null ? (
          '–'
        ) : need.net === null ? (
          <span className="marker">no price</span>
        ) : (
          <>
            {net === null ? '–' : format.amount(net, currency)}
            {price && <span className="second block">{pricePerBaseUnit(price, 2)} each</span>}
          </>
        )}
      </td>
    </tr>
  );
}
