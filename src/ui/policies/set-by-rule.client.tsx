'use client';

import { type FormEvent, useState } from 'react';
import type { SetRule } from '@/core/policy';
import type { RuleValues } from '@/services/planning/readRuleValues';
import { countOf } from '../format';
import { Modal } from '../frame/modal.client';

const bases: readonly (readonly [SetRule['basis'], string, string])[] = [
  ['days_of_demand', 'days of average demand', 'days'],
  ['advised', 'the advised minimum', ''],
  ['min_plus_days', 'the minimum and days of average demand', 'days'],
  ['min_plus_packs', 'the minimum and packs', 'packs'],
  ['factor', 'what is there, times', 'times'],
];

/** Sets a column for many lines by a rule, like "min = 10 days of average demand, rounded up to packs". The values become
 *  changed cells, to be looked at and saved like any others. */
export function SetByRule(props: {
  list: string;
  count: number;
  /** The rows that are chosen in the sheet, the last one not included; null = none. */
  chosen: { readonly from: number; readonly end: number } | null;
  onValues: (values: RuleValues, rule: SetRule) => void;
}) {
  const [open, setOpen] = useState(false);
  const [column, setColumn] = useState<SetRule['column']>('min');
  const [basis, setBasis] = useState<SetRule['basis']>('days_of_demand');
  const [amount, setAmount] = useState('10');
  const [round, setRound] = useState<SetRule['round']>('packs');
  const [all, setAll] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [, , unit] = bases.find(([b]) => b === basis) as (typeof bases)[number];
  const chosen = all ? null : props.chosen;
  const range = chosen ?? { from: 0, end: props.count };
  const run = async (event: FormEvent) => {
    event.preventDefault();
    const figure = Number(amount.replace(',', '.'));
    if (unit !== '' && !(figure > 0 && figure <= 9999)) return setSaid(`“${amount}” is no number of ${unit}.`);
    setBusy(true);
    const rule: SetRule = { column, basis, amount: unit === '' ? 0 : figure, round };
    const response = await fetch('/api/policies/rule', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ list: props.list, ...range, rule }),
    }).catch(() => null);
    const body = response?.ok ? ((await response.json()) as { value: RuleValues }) : null;
    setBusy(false);
    if (!body) return setSaid('This could not be reckoned just now; try again.');
    if (body.value.values.length === 0)
      return setSaid('None of these lines has what the rule asks for (average demand, a minimum), so nothing was set.');
    props.onValues(body.value, rule);
    setSaid(null);
    setOpen(false);
  };
  return (
    <>
      <button type="button" className="chip" onClick={() => setOpen(true)}>
        Set by rule
      </button>
      {open && (
        <Modal title="Set by rule" width="w-[460px]" onLeave={() => setOpen(false)}>
          <form className="grid gap-4 p-5" onSubmit={run}>
            <h2 className="text-[16px] font-semibold">Set by rule</h2>
            <div className="flex flex-wrap items-center gap-2">
              <select
                className="entry"
                aria-label="Column"
                value={column}
                onChange={(e) => setColumn(e.target.value as 'min')}
              >
                <option value="min">Minimum</option>
                <option value="max">Maximum</option>
              </select>
              <span>=</span>
              {unit !== '' && basis !== 'factor' && (
                <input
                  className="entry figure w-16"
                  aria-label={`Number of ${unit}`}
                  value={amount}
                  onChange={(e) => setAmount(e.target.value)}
                />
              )}
              <select
                className="entry"
                aria-label="Basis"
                value={basis}
                onChange={(e) => setBasis(e.target.value as SetRule['basis'])}
              >
                {bases.map(([value, name]) => (
                  <option key={value} value={value}>
                    {name}
                  </option>
                ))}
              </select>
              {basis === 'factor' && (
                <input
                  className="entry figure w-16"
                  aria-label="Factor"
                  value={amount}
                  onChange={(e) => setAmount(e.target.value)}
                />
              )}
            </div>
            <label className="flex items-center gap-2">
              rounded up to
              <select className="entry" value={round} onChange={(e) => setRound(e.target.value as 'packs')}>
                <option value="packs">packs</option>
                <option value="units">what can be sold singly</option>
              </select>
            </label>
            <fieldset className="grid gap-1">
              <legend className="second">for</legend>
              {props.chosen && (
                <label className="flex items-center gap-2">
                  <input type="radio" className="accent-action" checked={!all} onChange={() => setAll(false)} />
                  the {countOf(props.chosen.end - props.chosen.from, 'line')} that{' '}
                  {props.chosen.end - props.chosen.from === 1 ? 'is' : 'are'} chosen
                </label>
              )}
              <label className="flex items-center gap-2">
                <input
                  type="radio"
                  className="accent-action"
                  checked={all || !props.chosen}
                  onChange={() => setAll(true)}
                />
                all {countOf(props.count, 'line')} shown
              </label>
            </fieldset>
            <p className="second">
              Lines of places under min/max (or a fixed quantity, for its minimum) take it; the others stay as they are.
              Nothing is saved yet.
            </p>
            {said && (
              <p className="fault" role="alert">
                {said}
              </p>
            )}
            <div className="flex justify-end gap-2">
              <button type="button" className="btn btn-outline" onClick={() => setOpen(false)}>
                Leave it
              </button>
              <button type="submit" className="btn btn-primary" disabled={busy}>
                Put into the sheet
              </button>
            </div>
          </form>
        </Modal>
      )}
    </>
  );
}
