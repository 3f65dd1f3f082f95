import Link from 'next/link';
import { memo } from 'react';
import { eachText } from '@/core/money';
import { baseQuantity, isWholePacks } from '@/core/packs';
import { checkLineQuantity } from '@/core/purchase';
import { entryText, MICRO } from '@/core/quantity';
import { fraction } from '@/core/units';
import type { NeedView } from '@/services/planning/needViews';
import type { ClientFailure } from '../command/send';
import { type Format, lastsWords, plural } from '../format';
import { Cell } from '../grid/grid.client';
import { Cause, spokenCauses } from '../marks/cause';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { useMay } from '../may-context.client';
import { failureSentence } from '../sentences';
import { warningWords } from './mend.client';
import { netOf, priceOf } from './priceOf';

export type RowState =
  | { readonly kind: 'open' }
  | { readonly kind: 'saving' }
  | {
      readonly kind: 'accepted';
      /** The supplier whose tray it lies in, or the place that sends it. */
      readonly tray: string;
      readonly packs: string;
      readonly packName: string;
      readonly transfer: { readonly id: number; readonly number: string } | null;
      /** What else it was split over. */
      readonly also?: readonly string[];
    }
  | { readonly kind: 'aside'; readonly words: string }
  | { readonly kind: 'failed'; readonly failure: ClientFailure };

/** Why a need can't be accepted, null when it can. */
export const cannotAccept = (n: NeedView): string | null =>
  n.sentFrom ? (n.sentFrom.free === 0 ? 'none free there' : null) : n.supplierId === null ? 'no supplier yet' : null;

/** How late what is decided now would come, in days without stock; '' where it is in time. */
export const lateWords = ({ slackDays }: Pick<NeedView, 'slackDays'>): string =>
  slackDays !== null && slackDays < 0 ? `${-slackDays} ${slackDays === -1 ? 'day' : 'days'} short` : '';

/** Free, coming and how long it lasts; the column's head says what the days are. */
const stockWords = (need: NeedView, format: Format, lasts = ''): string =>
  [gaugeWords(need.gauge, format), lastsWords(need.coverDays) && `${lasts}${lastsWords(need.coverDays)}`]
    .filter(Boolean)
    .join(' · ');

/** Whom it is bought for. */
const forWords = ({ who, straight }: NonNullable<NeedView['boughtFor']>): string =>
  straight ? ` straight to ${who}` : ` for ${who}`;

/** What a row says of itself: item, place, cause, stock, quantity. */
export function needLabel(need: NeedView, text: string, format: Format): string {
  const checked = checkLineQuantity(text);
  const packs = plural(need.packName, checked.ok ? checked.value : 0);
  return `${need.itemName}, ${need.location}${need.boughtFor ? forWords(need.boughtFor) : ''}, ${[...need.causes.map((c) => spokenCauses[c]), lateWords(need)].filter(Boolean).join(', ')}, ${stockWords(need, format, 'lasts ')}, ${need.sentFrom ? `send from ${need.sentFrom.location}` : 'order'} ${text} ${packs}`;
}

/** What a row can ask for; it stays the same from one rendering to the next, so that only rows that changed are drawn. */
export type RowHands = {
  readonly type: (need: NeedView, value: string) => void;
  readonly accept: (need: NeedView, index: number) => void;
};

type CellsProps = {
  need: NeedView;
  index: number;
  format: Format;
  currency: string;
  today: string;
  state: RowState;
  typed: string | undefined;
  current: boolean;
  /** Marked, for what is done with many at once. */
  marked: boolean;
  hands: RowHands;
};

/** The cells of one need: item and place, why, stock, the quantity to order and what it comes to. */
export const NeedCells = memo(function NeedCells(props: CellsProps) {
  const { need, format, currency, state, typed } = props;
  const text = typed ?? entryText(need.packs);
  const checked = checkLineQuantity(text);
  const content = fraction(BigInt(need.content.num), BigInt(need.content.den));
  const base = checked.ok ? baseQuantity(checked.value, content) : null;
  const saving = state.kind === 'saving';
  const fault = state.kind === 'failed' ? failureSentence(state.failure, format) : null;
  const price = checked.ok ? priceOf(need, checked.value, props.today) : null;
  const net = price && base !== null ? netOf(need, base, price, currency) : null;
  const cause = cannotAccept(need);
  const mayDecide = useMay('needs.decide');
  return (
    <>
      <Cell className={`min-w-0 leading-[1.12] ${props.marked ? 'border-action border-l-[3px] pl-2' : ''}`}>
        <Link href={`/items/${need.itemId}`} className="name block" tabIndex={-1} prefetch={false}>
          {need.itemName}
        </Link>
        <span className="second">
          <span className="code">{need.itemNumber}</span> · {need.location}
          {need.boughtFor && forWords(need.boughtFor)}
          {need.warnings.some((w) => w === 'supplier_blocked' || w === 'item_stopped') && (
            <span className="text-attention">
              {' '}
              ·{' '}
              {need.warnings
                .filter((w) => w === 'supplier_blocked' || w === 'item_stopped')
                .map((w) => warningWords[w])
                .join(', ')}
            </span>
          )}
        </span>
      </Cell>
      <Cell className="max-sm:hidden">
        {need.causes.map((c) => (
          <Cause key={c} cause={c} />
        ))}
        {lateWords(need) && <span className="block pl-[21px] text-[11.5px] text-attention">{lateWords(need)}</span>}
      </Cell>
      <Cell className="leading-tight max-md:hidden">
        <LevelStrip gauge={need.gauge} format={format} id={`n${need.id}`} />
        <span className="second">{stockWords(need, format)}</span>
      </Cell>
      {state.kind === 'accepted' ? (
        <Cell className="col-span-2 min-w-0 leading-tight">
          {state.transfer ? (
            <Link href={`/stock/transfers/${state.transfer.id}`} className="link" tabIndex={-1} prefetch={false}>
              {state.transfer.number} from {state.tray}
            </Link>
          ) : (
            <Link href="/trays" className="link" tabIndex={-1} prefetch={false}>
              in the {state.tray} tray
            </Link>
          )}
          <span className="second block">
            {state.also && state.also.length > 0
              ? `and ${state.also.join(', ')}`
              : `${state.packs} ${plural(state.packName, Number(state.packs) * MICRO)}`}
          </span>
        </Cell>
      ) : state.kind === 'aside' ? (
        <Cell className="col-span-2 text-muted">{state.words}</Cell>
      ) : !need.open && !saving && !fault ? (
        <Cell className="col-span-2 text-muted">decided or no longer short</Cell>
      ) : (
        <>
          <Cell className={mayDecide ? '' : 'figure font-semibold'}>
            {mayDecide ? (
              <input
                className="entry figure w-full"
                data-column="packs"
                inputMode="decimal"
                aria-label={`Quantity of ${need.itemName} at ${need.location} in ${plural(need.packName, 2 * MICRO)}`}
                aria-invalid={!checked.ok || fault !== null}
                aria-describedby={fault ? `fault-${need.id}` : undefined}
                value={text}
                tabIndex={-1}
                readOnly={saving}
                onFocus={(e) => typed === undefined && e.target.select()}
                onChange={(e) => props.hands.type(need, e.target.value)}
              />
            ) : (
              format.quantity(need.packs)
            )}
          </Cell>
          <Cell className="flex min-w-0 items-center justify-between gap-2 leading-tight">
            {fault ? (
              <span className="fault" id={`fault-${need.id}`} role="alert">
                {fault}
              </span>
            ) : (
              <span className="min-w-0">
                {checked.ok ? plural(need.packName, checked.value) : need.packName}
                {need.packName !== need.unit && (
                  <span className="second block">
                    {base === null ? '–' : `${format.quantity(base)} ${plural(need.unit, base)}`}
                  </span>
                )}
                {need.sentFrom && (
                  <span
                    className={`block text-[11.5px] ${base !== null && base > need.sentFrom.free ? 'text-attention' : 'text-muted'}`}
                  >
                    {format.quantity(need.sentFrom.free)} free there
                  </span>
                )}
                {checked.ok && !isWholePacks(checked.value) && need.packName !== need.unit && (
                  <span className="marker">not whole {plural(need.packName, 2 * MICRO)}</span>
                )}
              </span>
            )}
            {saving ? (
              <span className="second">saving</span>
            ) : (
              mayDecide && (
                <button
                  type="button"
                  className={`chip ${props.current ? '' : 'opacity-70'}`}
                  tabIndex={-1}
                  disabled={cause !== null}
                  title={
                    cause ??
                    (need.sentFrom ? 'Onto the next transfer from there (Enter)' : 'Accept into the tray (Enter)')
                  }
                  aria-label={`Accept ${need.itemName} at ${need.location}`}
                  onClick={() => props.hands.accept(need, props.index)}
                >
                  {cause ?? 'Accept'}
                </button>
              )
            )}
          </Cell>
        </>
      )}
      <Cell className="figure leading-tight">
        {need.sentFrom ? (
          <span className="second">sent over</span>
        ) : need.supplierId === null ? (
          '–'
        ) : need.net === null ? (
          <span className="marker">{need.warnings.includes('no_rate') ? 'no rate' : 'no price'}</span>
        ) : (
          <>
            {net === null ? '–' : format.amount(net, currency)}
            {price && (
              <span className="second block">
                {eachText(price, need.currency)} {need.currency === currency ? '' : `${need.currency} `}each
              </span>
            )}
          </>
        )}
      </Cell>
    </>
  );
});
