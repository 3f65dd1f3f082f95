import type { Asking } from '../asking';

/** A place as planning sees it: when it receives, and how goods come to it from where it is usually supplied. */
export type PlaceDays = {
  readonly id: number;
  readonly closed: number;
  readonly suppliedBy: number | null;
  readonly receivingDays: number;
  readonly vanDays: number;
  readonly travelDays: number;
};

/** All places but transit, in their order. */
export const askPlaceDays = (ask: Asking): (() => Promise<PlaceDays[]>) =>
  ask.rows<PlaceDays>(
    `SELECT id, status = 'closed' AS closed, supplied_by_id AS suppliedBy, receiving_days AS receivingDays,
            van_days AS vanDays, travel_days AS travelDays
       FROM location WHERE kind <> 'transit' ORDER BY sort_order, id`,
  );
