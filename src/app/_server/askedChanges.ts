import { type AskedChanges, isChangeArea } from '@/services/people/readChanges';

const whole = (value: string) => (/^\d{1,15}$/.test(value) ? Number(value) : 0);

/** Which changes an address asks for. */
export const askedChanges = (said: (name: string) => string): AskedChanges => {
  const area = said('area');
  return {
    area: isChangeArea(area) ? area : null,
    userId: whole(said('who')) || null,
    from: said('from').slice(0, 10),
    to: said('to').slice(0, 10),
    before: whole(said('before')),
  };
};
