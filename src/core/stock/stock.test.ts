import { units } from '../quantity';
import { checkTransfer, crossingOf, type TransferAction, transferAllows, transferStates } from '.';

test('the life of a transfer: asked for, approved, shipped, received; refused and cancelled on the way', () => {
  const actions: readonly TransferAction[] = ['approve', 'refuse', 'cancel', 'ship', 'receive', 'take_off'];
  const allowed = Object.fromEntries(
    transferStates.map((s) => [s, actions.filter((a) => transferAllows(s, a)).join(' ')]),
  );
  expect(allowed).toEqual({
    requested: 'approve refuse cancel',
    approved: 'cancel ship take_off',
    shipped: 'receive',
    received: '',
    refused: '',
    cancelled: '',
  });
  expect(checkTransfer('requested', 'ship')).toEqual({
    ok: false,
    error: { kind: 'transfer_not_in_this_state', state: 'requested', action: 'ship' },
  });
});

test('a movement says which line it crossed, and only when it crosses', () => {
  const levels = { min: units(24), max: units(60) };
  const of = (before: number, after: number) => crossingOf(units(before), units(after), levels);
  expect([of(25, 24), of(24, 20), of(20, 30), of(40, 61), of(61, 62), of(30, 30)]).toEqual([
    'below_min',
    null,
    null,
    'above_max',
    null,
    null,
  ]);
  expect([of(3, 0), of(30, 0), of(2, -1), of(-1, -3), of(0, -1)]).toEqual([
    'out_of_stock',
    'out_of_stock',
    'below_zero',
    null,
    'below_zero',
  ]);
  expect(crossingOf(units(5), units(1), { min: null, max: null })).toBeNull();
  expect(crossingOf(units(1), units(900), { min: null, max: null })).toBeNull();
});
