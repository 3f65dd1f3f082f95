import { checked, type Quantity } from '@/core/quantity';

/** What counts for an item at a location, all in millionths of the base unit. */
export type PositionParts = {
  /** Physically there, in inspection included; negative when more was taken than booked. */
  readonly onHand: Quantity;
  readonly blocked: Quantity;
  /** Open parts of approved and sent orders due by the cover horizon; transfers approved and not yet received. */
  readonly onTheWay: Quantity;
  /** Lines in trays and in draft orders: decided, shown apart, never bought twice. */
  readonly inTrays: Quantity;
  /** Unfilled demand (allocated + backordered) due by the cover horizon. */
  readonly owed: Quantity;
  /** What places supplied from here will ask for but have not been promised: their suggestions, shown apart. */
  readonly planned: Quantity;
};

/** position = on hand − blocked + on the way + in trays and drafts − owed − planned for the places supplied from here.
 *  Source: common practice (inventory position of a reorder policy; dependent demand of a distribution network). */
export const position = (p: PositionParts): Quantity =>
  checked(p.onHand - p.blocked + p.onTheWay + p.inTrays - p.owed - p.planned);

/** free = on hand − allocated − in inspection − blocked; negative only when on hand is. */
export const free = (l: { onHand: Quantity; allocated: Quantity; inspection: Quantity; blocked: Quantity }): Quantity =>
  checked(l.onHand - l.allocated - l.inspection - l.blocked);

/** What is still to come of a delivery part: never below zero, also when more came than was ordered. */
export const openQuantity = (p: { ordered: Quantity; received: Quantity; cancelled: Quantity }): Quantity =>
  Math.max(0, checked(p.ordered - p.received - p.cancelled));
