/** One line of the bench: a value and its baseline of the same run. The goal is one of the ratio, or of the value where its
 *  name says so. */
export type Figure = {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  readonly baseline: number;
  readonly ratio: number;
  readonly goal: number;
};

export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] as number;
export const median = (values: readonly number[]): number => quantile(values, 0.5);
