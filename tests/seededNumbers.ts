import { seeded } from '../scripts/demoData/random';

const { floor } = Math;

/** Whole numbers and choices from a seed: the same sequence every time. */
export function seededNumbers(seed: number) {
  const random = seeded(seed);
  const upTo = (n: number): number => floor(random() * n);
  return { upTo, pick: <T>(list: readonly T[]): T => list[upTo(list.length)] as T };
}
