import type { Quantity } from '@/core/quantity';
import type { RankedSource } from './priceAt';

/** A source as it stands for one place: its rank there, its fixed share there (percent, null = none), and what has been
 *  bought from it for this place so far (millionths). */
export type SourceAtPlace = RankedSource & {
  readonly share: number | null;
  readonly bought: Quantity;
  /** The rank or the share is said for this very place. */
  readonly here: boolean;
};

/** Why a source was chosen. */
export type SourceRule =
  | { readonly kind: 'only' }
  | { readonly kind: 'rank'; readonly rank: number; readonly of: number; readonly here: boolean }
  | { readonly kind: 'share'; readonly share: number; readonly had: number; readonly here: boolean }
  /** Every supplier is blocked; the first is named all the same, and the need is marked. */
  | { readonly kind: 'blocked' };

/** The source that a place buys an item from, and by which rule.
 *  Where active sources have fixed shares, the one that is furthest behind its share of what was bought here; else the most
 *  preferred active one; where all are blocked the most preferred. Ties go to the better rank, then to the older source.
 *  Units: shares in percent; they need not add up to 100. Null when the item has no source.
 *  Source: common practice (split award, quota arrangement).
 *  @example shares 70 and 30, bought 60 and 40 → the first: 70 of 100 wanted, 60 had. */
export function chooseSource<T extends SourceAtPlace>(sources: readonly T[]): { source: T; rule: SourceRule } | null {
  const byRank = [...sources].sort((a, b) => a.preference - b.preference || a.id - b.id);
  const active = byRank.filter((s) => s.supplierActive);
  const [first] = active;
  if (!first) return byRank[0] ? { source: byRank[0], rule: { kind: 'blocked' } } : null;
  const shared = active.filter((s) => (s.share ?? 0) > 0);
  if (shared.length > 0) {
    const [shares, bought] = [sum(shared.map((s) => s.share ?? 0)), sum(shared.map((s) => s.bought))];
    const had = (s: T) => (bought === 0 ? 0 : s.bought / bought);
    const behind = (s: T) => (s.share ?? 0) / shares - had(s);
    const most = shared.reduce((best, s) => (behind(s) > behind(best) ? s : best));
    return {
      source: most,
      rule: { kind: 'share', share: most.share ?? 0, had: Math.round(had(most) * 1000) / 10, here: most.here },
    };
  }
  if (sources.length === 1) return { source: first, rule: { kind: 'only' } };
  return { source: first, rule: { kind: 'rank', rank: first.preference, of: sources.length, here: first.here } };
}

const sum = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0);
