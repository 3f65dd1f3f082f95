import { type PartRow, partFigures } from '@/data/repositories/orders';

/** Quantities of a part, in millionths. */
export const quantities = (p: PartRow) => {
  const { base: ordered, received, cancelled } = partFigures(p);
  return { ordered, received, cancelled };
};

/** What comes to a place; charges and services do not. */
export const goods = (parts: readonly PartRow[]) => parts.filter((p) => p.locationId !== null);

/** When a part is expected: as confirmed, else as promised, else as wanted. */
export const expectedOn = (p: PartRow): string | null => p.confirmedDate ?? p.promisedDate ?? p.wantedDate;
/** What was confirmed is another day than was asked for. */
export const movedByConfirmation = (p: PartRow): boolean =>
  p.confirmedDate !== null && p.confirmedDate !== p.wantedDate;
