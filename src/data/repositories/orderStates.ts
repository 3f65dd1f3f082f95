/** States of purchase orders as they are asked for in SQL; each agrees with the transitions of core/purchase/orderState. */

/** Not ordered yet: what stands on them counts as in drafts. */
export const DRAFTED = "('draft', 'awaiting')";

/** Ordered, and something may still come of them. */
export const ORDERED = "('approved', 'sent', 'confirmed', 'amending', 'amendment_awaiting')";

/** Drafted or ordered. */
export const LIVE = "('draft', 'awaiting', 'approved', 'sent', 'confirmed', 'amending', 'amendment_awaiting')";

/** When a part is expected: as confirmed, else as promised, else as wanted. */
export const EXPECTED = 'COALESCE(d.confirmed_date, d.promised_date, d.wanted_date)';

/** Ordered once, and goods may have come of them: those that are closed too. */
export const BOOKED = "('approved', 'sent', 'confirmed', 'amending', 'amendment_awaiting', 'closed')";
