import type { NeedCause } from '@/core/netting';

export const causeWords: Readonly<Record<NeedCause, string>> = {
  below_min: 'below min',
  dated_demand: 'dated demand',
  shop_asks: 'shop asks',
  supply_cut: 'order cut',
  customer_waits: 'customer waits',
  by_hand: 'by hand',
};

/** The same read out. */
export const spokenCauses: Readonly<Record<NeedCause, string>> = { ...causeWords, below_min: 'below minimum' };

/** A line under a level; a day on a line; goods going out of a door; a line cut through; somebody who stands there; a line
 *  that is written. */
const glyphs: Readonly<Record<NeedCause, string>> = {
  below_min: 'M1.5 2.5h10M3 5l3.5 6L10 5',
  dated_demand: 'M1.5 10.5h10M6.5 10.5v-8M6.5 2.5h4v3h-4',
  shop_asks: 'M1.5 11.5v-9h6v9M5 7h7M9.5 4.5 12 7 9.5 9.5',
  customer_waits: 'M6.5 1.8a2 2 0 1 0 0 4 2 2 0 0 0 0-4M2.2 11.5c0-2.6 2-4.2 4.3-4.2s4.3 1.6 4.3 4.2',
  by_hand: 'M1.5 11.5h10M3 9.5 9.5 3l1.5 1.5L4.5 11H3z',
  supply_cut: 'M2 2l9 9M11 2 6.5 6.5M2 11l2.5-2.5',
};

/** Why there is a need: a line glyph with words. */
export function Cause({ cause }: { cause: NeedCause }) {
  return (
    <span className="flex items-center gap-2 whitespace-nowrap leading-[1.15]">
      <svg
        width="13"
        height="13"
        viewBox="0 0 13 13"
        aria-hidden="true"
        className="shrink-0 fill-none stroke-ink"
        strokeWidth="1.3"
      >
        <path d={glyphs[cause]} />
      </svg>
      {causeWords[cause]}
    </span>
  );
}
