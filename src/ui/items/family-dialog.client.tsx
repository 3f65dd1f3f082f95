'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { commonUnits } from '@/core/units';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { useLeave } from '../frame/use-leave.client';
import { cellSentence } from '../sheets/fault-sentences';

const lines = (text: string) =>
  text
    .split(/[\n;]+/)
    .map((l) => l.trim())
    .filter((l) => l !== '');

const NOTHING = {
  ...{ family: '', stem: '', option1: 'colour', values1: '', option2: '', values2: '', priceGroup: '' },
  ...{ category: '', unit: 'H87', unitName: '', price: '', pattern: '' },
};

/** A family in one go: a yarn in forty colours, a needle in twelve sizes; up to two options, crossed. */
export function FamilyDialog(props: {
  patterns: readonly string[];
  categories: readonly string[];
  onClose: () => void;
}) {
  const router = useRouter();
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [f, setF] = useState(NOTHING);
  const { leave, close, said } = useLeave(JSON.stringify(f) !== JSON.stringify(NOTHING), props.onClose);
  const set = (change: Partial<typeof f>) => setF({ ...f, ...change });
  const [one, two] = [lines(f.values1), lines(f.values2)];
  const count = one.length * Math.max(1, two.length);
  const missing = [
    f.family.trim() === '' && 'name',
    f.stem.trim() === '' && 'number',
    one.length === 0 && 'values',
    f.option1.trim() === '' && 'option 1',
    two.length > 0 && f.option2.trim() === '' && 'option 2',
  ].filter(Boolean);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await run<{ first: number }>('make-family', { ...f, values1: one, values2: two });
    if (!outcome.ok) return;
    props.onClose();
    router.push(`/items?q=${encodeURIComponent(f.family)}`);
  };
  const faults = failure?.kind === 'wrong_rows' ? failure.faults.flat() : [];
  const entry = (key: keyof typeof f, label: string, say = '', more = {}) => (
    <label className="grid content-start gap-0.5">
      <span className="second">{label}</span>
      <input
        className="entry w-full"
        value={f[key]}
        onChange={(e) => set({ [key]: e.target.value })}
        autoComplete="off"
        {...more}
      />
      <span className="second">{say}</span>
    </label>
  );
  const values = (key: 'values1' | 'values2', label: string) => (
    <label className="grid content-start gap-0.5">
      <span className="second">{label}</span>
      <textarea
        className="entry h-auto w-full py-1"
        rows={6}
        value={f[key]}
        onChange={(e) => set({ [key]: e.target.value })}
      />
    </label>
  );
  return (
    <Modal title="New family" width="w-[680px]" onLeave={leave}>
      <form onSubmit={submit} className="grid gap-3 p-5">
        <h2 className="head">New family</h2>
        <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2">
          {entry('family', 'Name of the family', 'Members are called “Name, value”.', { maxLength: 100 })}
          {entry(
            'stem',
            'Number of the family',
            f.stem ? `Members: ${f.stem}-01 and on.` : 'Members count on from it.',
            { maxLength: 30 },
          )}
          {entry('option1', 'Option 1', 'What members differ in.', { maxLength: 40 })}
          {entry('option2', 'Option 2', 'A second difference, if any.', { maxLength: 40 })}
          {values('values1', 'Values of option 1, one a line')}
          {values('values2', 'Values of option 2, one a line')}
          <label className="grid content-start gap-0.5">
            <span className="second">Unit that stock is kept in</span>
            <select className="entry" value={f.unit} onChange={(e) => set({ unit: e.target.value })}>
              {commonUnits.map((u) => (
                <option key={u.code} value={u.code}>
                  {u.name}
                </option>
              ))}
            </select>
          </label>
          {entry('unitName', 'One is called', 'ball, skein; empty = the unit’s name.', { maxLength: 30 })}
          {entry('category', 'Category', '', { list: 'family-categories', maxLength: 250 })}
          {entry('price', 'Price each sells at', '', { inputMode: 'decimal', className: 'entry figure w-full' })}
          {entry('priceGroup', 'Price group', 'Breaks may count over it.', { maxLength: 40 })}
          <label className="grid content-start gap-0.5">
            <span className="second">Packs from a pattern</span>
            <select className="entry" value={f.pattern} onChange={(e) => set({ pattern: e.target.value })}>
              <option value="">none</option>
              {props.patterns.map((p) => (
                <option key={p}>{p}</option>
              ))}
            </select>
          </label>
        </div>
        <datalist id="family-categories">
          {props.categories.map((c) => (
            <option key={c} value={c} />
          ))}
        </datalist>
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy || missing.length > 0}>
            {count > 0 ? `Make ${countOf(count, 'item')}` : 'Make'}
          </button>
          <button type="button" className="btn btn-outline" onClick={leave}>
            {close}
          </button>
          <span className="second" role="status">
            {said || (missing.length > 0 ? `Still missing: ${missing.join(', ')}` : '')}
          </span>
        </div>
        {faults.slice(0, 5).map((x) => (
          <p key={`${x.column}/${x.text}`} className="fault" role="alert">
            {x.text ? `${x.text}: ` : ''}
            {cellSentence(x, (k) => k, format)}
          </p>
        ))}
        {sentence && failure?.kind !== 'wrong_rows' && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
      </form>
    </Modal>
  );
}
