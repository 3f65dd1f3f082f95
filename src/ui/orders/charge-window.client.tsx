'use client';

import { useState } from 'react';
import { chargeText } from '@/core/landed';
import type { OrderView } from '@/services/purchase/readOrder';
import type { ChargeEntry } from '@/services/purchase/setOrderCharge';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { Labelled } from '../frame/labelled';
import { Modal } from '../frame/modal.client';
import { chargeOrigin, intoWords, spreadWords } from './words';

type ChargeView = OrderView['sums']['charges'][number];

/** A charge or allowance of one order: how much, by what it is spread, into what it goes, on whose bill it stands; left out of this order,
 *  or as its supplier usually has it again. */
export function ChargeWindow(props: { order: OrderView; charge: ChargeView | null; onLeave: () => void }) {
  const { order, charge, onLeave } = props;
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const faultAt = (field: string) => (failure?.kind === 'invalid_field' && failure.field === field ? sentence : '');
  const [name, setName] = useState(charge?.name ?? '');
  const [entry, setEntry] = useState<ChargeEntry>({
    ...{ sign: charge?.sign ?? 'charge', amountKind: charge?.amountKind ?? 'fixed', amount: charge?.amount ?? '' },
    ...{ currency: charge?.currency ?? order.head.currency, onCharges: charge?.onCharges.join('; ') ?? '' },
    ...{ spread: charge?.spread ?? 'value', into: charge?.into ?? 'stock', account: charge?.account ?? '' },
    ...{ billed: charge?.billed ?? true, onlyLines: charge?.onlyLines.join(', ') ?? '' },
  });
  const put = (more: Partial<ChargeEntry>) => setEntry({ ...entry, ...more });
  const save = async (as: 'given' | 'left_out' | 'usual') => {
    const was = charge ? chargeText(charge) : '';
    const words = {
      given: 'was set',
      left_out: 'was left out',
      usual: charge?.usual ? 'is as usual again' : 'was taken off',
    };
    const sent = { orderId: order.head.id, name, was, as, entry };
    const outcome = await run('set-order-charge', sent, { words: `${name} ${words[as]}` });
    if (outcome.ok) onLeave();
  };
  return (
    <Modal title={charge ? `Charge ${charge.name}` : 'A charge or allowance'} width="w-[560px]" onLeave={onLeave}>
      <form
        className="grid gap-3 p-5"
        onSubmit={(e) => {
          e.preventDefault();
          save('given');
        }}
      >
        <h2 className="text-[15px] font-semibold">{charge ? charge.name : 'A charge or allowance of this order'}</h2>
        {charge && <p className="second">{chargeOrigin(charge, format)}</p>}
        <div className="flex flex-wrap items-start gap-3">
          {!charge && (
            <Labelled label="What it is" fault={faultAt('name')}>
              <input
                className="entry w-52"
                maxLength={60}
                value={name}
                onChange={(e) => setName(e.target.value)}
                ref={(field) => {
                  if (field && name === '') field.focus();
                }}
              />
            </Labelled>
          )}
          <Labelled label="It">
            <select className="entry" value={entry.sign} onChange={(e) => put({ sign: e.target.value as 'charge' })}>
              <option value="charge">is added</option>
              <option value="allowance">is taken off</option>
            </select>
          </Labelled>
          <Labelled label="As">
            <select
              className="entry"
              value={entry.amountKind}
              onChange={(e) => {
                const amountKind = e.target.value as ChargeEntry['amountKind'];
                put({ amountKind, ...(amountKind === 'duty' ? { billed: false } : {}) });
              }}
            >
              <option value="fixed">a sum</option>
              <option value="percent">a percentage</option>
              <option value="duty">each item’s duty rate</option>
            </select>
          </Labelled>
          {entry.amountKind !== 'duty' && (
            <Labelled label={entry.amountKind === 'percent' ? 'Percent' : 'How much'} fault={faultAt('amount')}>
              <input
                className="entry figure w-24"
                inputMode="decimal"
                placeholder="not known"
                value={entry.amount}
                onChange={(e) => put({ amount: e.target.value })}
              />
            </Labelled>
          )}
          {entry.amountKind === 'fixed' && (
            <Labelled label="Currency" fault={faultAt('currency')}>
              <input
                className="entry w-16 uppercase"
                maxLength={3}
                value={entry.currency}
                onChange={(e) => put({ currency: e.target.value })}
              />
            </Labelled>
          )}
          {entry.amountKind !== 'fixed' && (
            <Labelled label="Of goods and" fault={faultAt('onCharges')}>
              <input
                className="entry w-52"
                placeholder="earlier charges; parted so"
                value={entry.onCharges}
                onChange={(e) => put({ onCharges: e.target.value })}
              />
            </Labelled>
          )}
        </div>
        <div className="flex flex-wrap items-start gap-3">
          {entry.amountKind !== 'duty' && (
            <Labelled label="Spread">
              <select
                className="entry"
                value={entry.spread}
                onChange={(e) => put({ spread: e.target.value as ChargeEntry['spread'] })}
              >
                {Object.entries(spreadWords).map(([spread, words]) => (
                  <option key={spread} value={spread}>
                    {words}
                  </option>
                ))}
              </select>
            </Labelled>
          )}
          <Labelled label="Only lines" fault={faultAt('onlyLines')}>
            <input
              className="entry w-28"
              placeholder="all"
              value={entry.onlyLines}
              onChange={(e) => put({ onlyLines: e.target.value })}
            />
          </Labelled>
          <Labelled label="Goes into">
            <select
              className="entry"
              value={entry.into}
              onChange={(e) => put({ into: e.target.value as ChargeEntry['into'] })}
            >
              {Object.entries(intoWords).map(([into, words]) => (
                <option key={into} value={into}>
                  {words}
                </option>
              ))}
            </select>
          </Labelled>
          <Labelled label="Account">
            <input
              className="entry w-24"
              maxLength={20}
              value={entry.account}
              onChange={(e) => put({ account: e.target.value })}
            />
          </Labelled>
        </div>
        {entry.amountKind !== 'duty' && (
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={entry.billed} onChange={(e) => put({ billed: e.target.checked })} />
            it stands on {order.head.supplierName}’s bill
          </label>
        )}
        {sentence && failure?.kind !== 'invalid_field' && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex flex-wrap gap-2 border-t border-rule pt-3">
          <button type="submit" className="btn btn-primary" disabled={busy}>
            {charge ? 'Set it so' : 'Add it'}
          </button>
          {charge && !charge.leftOut && charge.usual && (
            <button type="button" className="btn btn-outline" disabled={busy} onClick={() => save('left_out')}>
              Leave it out of this order
            </button>
          )}
          {charge && charge.differs.length > 0 && (
            <button type="button" className="btn btn-outline" disabled={busy} onClick={() => save('usual')}>
              {charge.usual ? 'As usual again' : 'Take it off'}
            </button>
          )}
          <button type="button" className="btn btn-ghost" onClick={onLeave}>
            Leave
          </button>
        </div>
      </form>
    </Modal>
  );
}
