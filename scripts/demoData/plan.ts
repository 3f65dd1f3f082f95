export type PackPlan = {
  readonly name: string;
  readonly num: number;
  readonly den: number;
  readonly of: string | null;
};
export type SourcePlan = {
  readonly supplier: string;
  readonly pack: string | null;
  /** Price per pack, with breaks: [from packs, amount]. Empty = the price is missing. */
  readonly prices: readonly (readonly [number, string])[];
  readonly per?: number;
  readonly minimum?: number;
};
export type Family = {
  readonly number: string;
  readonly name: string;
  readonly category: string;
  readonly unit: readonly [string, string];
  readonly packs: readonly PackPlan[];
  readonly sources: readonly SourcePlan[];
  /** Min and max of a full-size shop, in base units. */
  readonly min: number;
  readonly max: number;
  readonly variants: readonly string[];
  readonly notAt?: readonly string[];
};

/** A pack: so many of another, or of the base unit. */
export const packOf = (name: string, num: number, inner: string | null = null, den = 1): PackPlan => ({
  name,
  num,
  den,
  of: inner,
});
