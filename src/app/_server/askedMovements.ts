import { movementKinds } from '@/core/stock';
import type { MovementsAsked } from '@/services/stock/readMovements';

const whole = (value: string) => (/^\d{1,15}$/.test(value) ? Number(value) : 0);

/** Which movements an address asks for; the place is the one chosen in the bar. */
export const askedMovements = (said: (name: string) => string, locationId: number | null): MovementsAsked => ({
  search: said('q').slice(0, 100),
  itemId: whole(said('item')) || null,
  locationId,
  userId: whole(said('who')) || null,
  kind: movementKinds.find((k) => k === said('kind')) ?? null,
  reasonId: whole(said('reason')) || null,
  document: said('document').slice(0, 40),
  from: said('from').slice(0, 10),
  to: said('to').slice(0, 10),
  before: whole(said('before')),
});
