import { addDays, type BusinessDate } from '@/core/calendar';

/** A draft of a supplier that something could still be put on; or an order that it knows, which is changed by that. */
export type OpenDraft = {
  readonly id: number;
  readonly begun: BusinessDate;
  /** Of an order that its supplier knows: its number. What is put on it is a change of it, and only by choice. */
  readonly told?: string | null;
  readonly orderDate: BusinessDate;
  /** Places it delivers to, and the days its parts are wanted on. */
  readonly places: readonly number[];
  readonly wanted: readonly BusinessDate[];
};

/** A part that is wanted this much later than what is ordered today would arrive belongs to another delivery. */
const SAME_DELIVERY_DAYS = 7;

/** Drafts that what lies in a tray may join: they go to one of its places (to any, where a supplier's orders are for all places),
 *  go out no later than today, and want nothing much
 *  later than it would arrive. The one begun last first. Source: common practice (consolidating requisitions of one delivery). */
export function draftsThatFit(
  drafts: readonly OpenDraft[],
  tray: { readonly places: readonly number[] | 'all'; readonly arrives: BusinessDate; readonly today: BusinessDate },
): OpenDraft[] {
  const { places } = tray;
  const latest = addDays(tray.arrives, SAME_DELIVERY_DAYS);
  return drafts
    .filter(
      (d) =>
        !d.told &&
        d.orderDate <= tray.today &&
        (places === 'all' || d.places.some((p) => places.includes(p))) &&
        d.wanted.every((day) => day <= latest),
    )
    .sort((a, b) => (a.begun < b.begun ? 1 : a.begun > b.begun ? -1 : b.id - a.id));
}

/** What somebody said a tray shall become. */
export type TrayChoice =
  | { readonly kind: 'by_rule' }
  | { readonly kind: 'new' }
  | { readonly kind: 'joins'; readonly id: number };

/** The draft that a tray joins; null = a new order. By rule it is the first that fits; one that was chosen and is no draft any
 *  more is not waited for. */
export const draftToJoin = (fitting: readonly OpenDraft[], drafts: readonly OpenDraft[], choice: TrayChoice) =>
  choice.kind === 'new'
    ? null
    : choice.kind === 'joins'
      ? (drafts.find((d) => d.id === choice.id) ?? fitting[0] ?? null)
      : (fitting[0] ?? null);
