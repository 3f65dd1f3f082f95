import { MAX_QUANTITY, MICRO, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type Fraction, fraction, times } from '@/core/units';

/** A pack of one item: `count` of another pack of the same item, or of base units when `of` is null.
 *  "carton = 36 pieces", "bale = 3 cartons", "bolt = 15 yd" (15 × 1143/1250 m). */
export type Pack = {
  readonly id: number;
  readonly name: string;
  readonly count: Fraction;
  readonly of: number | null;
};

export type PackFault =
  | { readonly kind: 'unknown_pack'; readonly id: number }
  | { readonly kind: 'pack_loop'; readonly names: readonly string[] }
  | { readonly kind: 'empty_pack'; readonly name: string }
  | { readonly kind: 'not_exact'; readonly name: string; readonly content: Fraction };

/** Content of a pack in base units, through however many packs of packs; exact.
 *  Errors: unknown_pack; pack_loop (a pack that holds itself, names spelled out); empty_pack (zero or negative content). */
export function packContent(packs: ReadonlyMap<number, Pack>, id: number): Result<Fraction, PackFault> {
  let content = fraction(1n);
  const seen: string[] = [];
  const visited = new Set<number>();
  for (let at: number | null = id; at !== null; ) {
    const pack: Pack | undefined = packs.get(at);
    if (!pack) return err({ kind: 'unknown_pack', id: at });
    seen.push(pack.name);
    if (visited.has(at)) return err({ kind: 'pack_loop', names: seen });
    visited.add(at);
    if (pack.count.num <= 0n) return err({ kind: 'empty_pack', name: pack.name });
    content = times(content, pack.count);
    at = pack.of;
  }
  return ok(content);
}

/** Content of the usual buying pack in millionths of the base unit: what the need run counts in.
 *  Errors: not_exact when a pack is no whole number of millionths; keep the item in a finer unit then (g, not kg).
 *  @example contentMicro({ num: 13716n, den: 1000n })  // 13_716_000: a bolt of 15 yd in metres */
export function contentMicro(content: Fraction, name = 'pack'): Result<Quantity, PackFault> {
  const micro = content.num * BigInt(MICRO);
  if (micro % content.den !== 0n) return err({ kind: 'not_exact', name, content });
  const q = micro / content.den;
  return q > BigInt(MAX_QUANTITY) ? err({ kind: 'not_exact', name, content }) : ok(Number(q));
}
