import { type MoversAsked, moverDays, moverOrders } from '@/services/stock/readMovers';

/** What an address asks of the page of movers. */
export const askedMovers = (said: (name: string) => string, locationId: number | null): MoversAsked => ({
  order: moverOrders.find((o) => o === said('order')) ?? moverOrders[0],
  days: Number(moverDays.find((d) => d === said('days')) ?? moverDays[0]),
  locationId,
  category: said('category').slice(0, 250),
});
