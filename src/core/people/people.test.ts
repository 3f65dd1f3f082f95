import { type Actor, isMailAddress, may, type Right, type Role, roles } from '.';

const actor = (role: string, change: Partial<Actor> = {}): Actor => ({
  userId: 1,
  name: 'A',
  initials: 'A',
  role,
  locations: null,
  approvalLimit: null,
  ...change,
});

describe('rights', () => {
  const table: Record<Right, Role[]> = {
    'needs.read': ['buyer', 'owner', 'read_only'],
    'needs.decide': ['buyer', 'owner'],
    'orders.read': ['buyer', 'owner', 'bookkeeper', 'read_only'],
    'orders.edit': ['buyer', 'owner'],
    'orders.approve': ['buyer', 'owner'],
    'orders.send': ['buyer', 'owner'],
    'goods.receive': ['buyer', 'owner', 'shop'],
    'stock.read': ['buyer', 'owner', 'shop', 'bookkeeper', 'read_only'],
    'stock.sell': ['buyer', 'owner', 'shop'],
    'stock.allocate': ['buyer', 'owner', 'shop'],
    'stock.transfer': ['buyer', 'owner', 'shop'],
    'stock.count': ['buyer', 'owner', 'shop'],
    'promises.read': ['buyer', 'owner', 'shop', 'read_only'],
    'promises.edit': ['buyer', 'owner', 'shop'],
    'books.close': ['owner', 'bookkeeper'],
    'setup.edit': ['owner'],
    'people.edit': ['owner'],
    'changes.read': ['buyer', 'owner', 'bookkeeper'],
    undo: ['buyer', 'owner', 'shop', 'bookkeeper'],
    'catalogue.edit': ['buyer', 'owner'],
    'policies.edit': ['buyer', 'owner'],
  };
  test.each(Object.entries(table).flatMap(([right, who]) => roles.map((r) => [right, r, who.includes(r)] as const)))(
    '%s, %s: %s',
    (right, role, allowed) => {
      expect(may(actor(role), right as Right).ok).toBe(allowed);
    },
  );

  test('a role of the company’s own allows what it lists; an unknown one nothing', () => {
    const own = actor('Stocktaker', { rights: ['stock.read', 'stock.count'] });
    expect(may(own, 'stock.count').ok).toBe(true);
    expect(may(own, 'stock.sell')).toMatchObject({ error: { kind: 'forbidden', because: 'role' } });
    expect(may(actor('Stocktaker'), 'stock.read').ok).toBe(false);
  });

  test('a place outside the person’s own is refused', () => {
    const jun = actor('shop', { locations: [3] });
    expect(may(jun, 'goods.receive', { locationIds: [3] }).ok).toBe(true);
    expect(may(jun, 'goods.receive', { locationIds: [3, 1] })).toMatchObject({
      error: { kind: 'forbidden', because: 'location' },
    });
  });

  test('an approval above the limit is the owner’s', () => {
    const mira = actor('buyer', { approvalLimit: 250_000 });
    expect(may(mira, 'orders.approve', { amount: { net: 250_000, currency: 'EUR' } }).ok).toBe(true);
    expect(may(mira, 'orders.approve', { amount: { net: 250_001, currency: 'EUR' } })).toEqual({
      ok: false,
      error: { kind: 'above_limit', limit: 250_000, currency: 'EUR' },
    });
    expect(may(actor('owner'), 'orders.approve', { amount: { net: 9e12, currency: 'EUR' } }).ok).toBe(true);
  });
});

test('what can be a mail address', () => {
  expect(['mira@quillon.example', 'm.rook+alerts@mail.quillon.example'].every(isMailAddress)).toBe(true);
  expect(
    ['', 'mira', 'mira@quillon', '@quillon.example', 'a b@c.de', 'a@b@c.de', 'Mira <m@q.example>'].some(isMailAddress),
  ).toBe(false);
});
