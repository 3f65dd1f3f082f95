import {
  actionRights,
  actionsOf,
  isDrafted,
  isEditable,
  isOrdered,
  nextState,
  type OrderAction,
  type OrderFacts,
  type OrderState,
  orderActions,
  orderStates,
  progress,
  stageOf,
} from '.';

const order = (state: OrderState, more: Partial<OrderFacts> = {}): OrderFacts => ({
  state,
  number: null,
  anyReceived: false,
  everSent: true,
  ...more,
});

// Said once more, by hand: every pair that is not here is refused.
const allowed: Record<OrderState, Partial<Record<OrderAction, OrderState>>> = {
  draft: { edit: 'draft', ask: 'awaiting', approve: 'approved', put_back: 'put_back' },
  awaiting: { withdraw: 'draft', refuse: 'draft', approve: 'approved' },
  approved: {
    ...{ reopen: 'draft', send: 'sent', receive: 'approved', put_back: 'cancelled', amend: 'amending' },
    ...{ cut: 'approved', cancel: 'cancelled', close: 'closed' },
  },
  sent: { confirm: 'confirmed', receive: 'sent', amend: 'amending', cut: 'sent', cancel: 'cancelled', close: 'closed' },
  confirmed: {
    ...{ confirm: 'confirmed', receive: 'confirmed', amend: 'amending' },
    ...{ cut: 'confirmed', cancel: 'cancelled', close: 'closed' },
  },
  amending: {
    ...{ edit: 'amending', ask: 'amendment_awaiting', approve: 'approved' },
    ...{ receive: 'amending', drop_amendment: 'confirmed' },
  },
  amendment_awaiting: { withdraw: 'amending', refuse: 'amending', approve: 'approved', receive: 'amendment_awaiting' },
  closed: { open_again: 'confirmed' },
  put_back: { restore: 'draft' },
  cancelled: { restore: 'approved' },
};
// Of an approved order: what its supplier knows is not taken back in silence, what nobody knows is not amended.
const ofTheTold: readonly OrderAction[] = ['amend', 'cancel', 'cut', 'close'];
const ofTheUntold: readonly OrderAction[] = ['reopen', 'put_back'];

describe('life of an order', () => {
  const all = orderStates.flatMap((s) => orderActions.map((a) => [s, a] as const));
  test.each(all)('%s, %s', (state, action) => {
    const wanted = allowed[state][action];
    for (const everSent of [true, false]) {
      const next = nextState(order(state, { everSent, before: 'confirmed' }), action);
      const apart =
        state === 'approved' && (everSent ? ofTheUntold : ofTheTold).includes(action)
          ? everSent
            ? 'sent_before'
            : 'never_sent'
          : undefined;
      if (wanted && !apart && !(state === 'draft' && action === 'put_back' && everSent)) {
        expect(next).toEqual({ ok: true, value: wanted });
      } else {
        expect(next).toMatchObject({ ok: false, error: { kind: 'not_in_this_state', state, action } });
        if (apart) expect(next).toMatchObject({ error: { because: apart } });
      }
    }
  });

  test('every action has a right, every state a stage', () => {
    expect(Object.keys(actionRights).sort()).toEqual([...orderActions].sort());
    expect(orderStates.map((state) => stageOf({ state }))).toEqual([1, 1, 2, 3, 4, 2, 2, 2, 0, 0]);
    expect(stageOf({ state: 'closed', before: 'sent' })).toBe(3);
    expect(stageOf({ state: 'amending', before: 'confirmed' })).toBe(4);
  });

  test('ordered, drafted, editable: each state is of one kind', () => {
    expect(orderStates.filter(isOrdered)).toEqual(['approved', 'sent', 'confirmed', 'amending', 'amendment_awaiting']);
    expect(orderStates.filter(isDrafted)).toEqual(['draft', 'awaiting']);
    expect(orderStates.filter(isEditable)).toEqual(['draft', 'amending']);
  });

  test('a draft that has its number already is cancelled and keeps it', () => {
    const known = order('draft', { number: '2611-0007', everSent: false });
    expect(nextState(known, 'put_back')).toEqual({ ok: true, value: 'cancelled' });
  });

  test('once goods came the order is not taken back, but can be changed, cut short or closed', () => {
    const came = order('approved', { number: '2611-0007', anyReceived: true, everSent: false });
    for (const action of ['put_back', 'reopen', 'cancel'] as const)
      expect(nextState(came, action)).toMatchObject({ error: { because: 'goods_received' } });
    for (const action of ['receive', 'amend', 'close', 'cut'] as const)
      expect(nextState(came, action)).toMatchObject({ ok: true });
    expect(nextState({ ...came, anyOpen: false }, 'cut')).toMatchObject({ error: { because: 'nothing_open' } });
  });

  test('while a mail with it waits, nothing that it says is changed and nothing sent twice', () => {
    const waits = order('approved', { number: '2611-0007', everSent: false, mailWaits: true });
    for (const action of ['reopen', 'put_back', 'close', 'send', 'cut'] as const)
      expect(nextState(waits, action)).toMatchObject({ error: { because: 'mail_waits' } });
    expect(actionsOf(waits)).toEqual(['receive']);
  });

  test('a change that is dropped and a closed order that is opened have the state of before', () => {
    expect(nextState(order('amending', { before: 'sent' }), 'drop_amendment')).toEqual({ ok: true, value: 'sent' });
    expect(nextState(order('closed', { before: 'sent' }), 'open_again')).toEqual({ ok: true, value: 'sent' });
    expect(nextState(order('closed'), 'open_again')).toEqual({ ok: true, value: 'approved' });
  });

  test('how far goods have come', () => {
    const part = (ordered: number, received: number, cancelled = 0) => ({ ordered, received, cancelled });
    expect(progress([part(10, 0), part(5, 0)])).toBe('nothing');
    expect(progress([part(10, 10), part(5, 0)])).toBe('part');
    expect(progress([part(10, 12), part(5, 3, 2)])).toBe('all');
  });
});
