/** One line of the bench: a value and its baseline of the same run. */
export type Figure = {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  readonly baseline: number;
  readonly ratio: number;
  readonly goal: number;
};
