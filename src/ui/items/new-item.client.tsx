'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { commonUnits, unitsByCode } from '@/core/units';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { useLeave } from '../frame/use-leave.client';
import { cellSentence } from '../sheets/fault-sentences';
import { FamilyDialog } from './family-dialog.client';

type Made = { readonly itemId: number; readonly number: string };
type MadeItem = { readonly id: number; readonly number: string; readonly name: string; readonly unit: string };

/** A new item in the middle of other work: name, unit and price are enough. What is missing goes onto the list of items to be
 *  completed. `code` is an unknown barcode that was scanned. */
export function NewItemDialog(props: {
  name?: string;
  code?: string;
  onClose: () => void;
  /** What to do with it; by default its page is opened. */
  onMade?: (made: MadeItem) => void;
}) {
  const router = useRouter();
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [first] = useState({ name: props.name ?? '', unit: 'H87', price: '', number: '', code: props.code ?? '' });
  const [cells, setCells] = useState(first);
  const dirty = JSON.stringify(cells) !== JSON.stringify(first);
  const { leave, close, said } = useLeave(dirty, props.onClose);
  const faults = failure?.kind === 'wrong_rows' ? (failure.faults[0] ?? []) : [];
  const faultOf = (...keys: string[]) => {
    const fault = faults.find((f) => keys.includes(f.column));
    if (fault) return cellSentence(fault, (k) => k, format);
    return failure?.kind === 'invalid_field' && keys.includes(failure.field) ? sentence : '';
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    // It may stand in another form, which is not sent with it.
    event.stopPropagation();
    const outcome = await run<Made>('make-item', cells, { words: `${cells.name}: made, to be completed` });
    if (!outcome.ok) return;
    props.onClose();
    const { itemId: id, number } = outcome.value;
    const unit = unitsByCode.get(cells.unit);
    if (props.onMade) props.onMade({ id, number, name: cells.name.trim(), unit: unit?.symbol ?? unit?.name ?? '' });
    else router.push(`/items/${id}/file`);
  };
  const entry = (key: keyof typeof cells, label: string, say: string, fault: string, more = {}) => (
    <label className="grid content-start gap-0.5">
      <span className="second">{label}</span>
      <input
        className="entry w-full"
        value={cells[key]}
        aria-invalid={fault !== ''}
        autoComplete="off"
        onChange={(e) => setCells({ ...cells, [key]: e.target.value })}
        {...more}
      />
      <span className={fault ? 'fault' : 'second'} role={fault ? 'alert' : undefined}>
        {fault || say}
      </span>
    </label>
  );
  return (
    <Modal title="New item" width="w-[520px]" onLeave={leave}>
      <form onSubmit={submit} className="grid gap-3 p-5">
        <h2 className="head">New item</h2>
        {entry('name', 'Name', 'As on shelf and orders.', faultOf('name'), { required: true, maxLength: 200 })}
        <div className="grid gap-x-4 gap-y-3 sm:grid-cols-2">
          <label className="grid content-start gap-0.5">
            <span className="second">Unit that stock is kept in</span>
            <select
              className="entry w-full"
              value={cells.unit}
              onChange={(e) => setCells({ ...cells, unit: e.target.value })}
            >
              {commonUnits.map((u) => (
                <option key={u.code} value={u.code}>
                  {u.name}
                </option>
              ))}
            </select>
            <span className="fault">{faultOf('unit')}</span>
          </label>
          {entry(
            'price',
            'Price it sells at, per unit',
            'With tax; empty if not known yet.',
            faultOf('price', 'sale_price'),
            {
              inputMode: 'decimal',
              className: 'entry figure w-full',
            },
          )}
          {entry('number', 'Number', 'Empty: the next one of ours.', faultOf('number'))}
          {entry('code', 'Barcode', 'If it has one.', faultOf('code'))}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy || cells.name.trim() === ''}>
            Make the item
          </button>
          <button type="button" className="btn btn-outline" onClick={leave}>
            {close}
          </button>
          <span className="second" role="status">
            {said ||
              (cells.name.trim() === '' ? 'Still missing: name' : 'The rest can wait: it stands on “To complete”.')}
          </span>
        </div>
        {sentence && failure?.kind !== 'wrong_rows' && failure?.kind !== 'invalid_field' && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
      </form>
    </Modal>
  );
}

/** The buttons that open it, and the form of a whole family. */
export function NewItem({ patterns, categories }: { patterns: readonly string[]; categories: readonly string[] }) {
  const [open, setOpen] = useState<'item' | 'family' | null>(null);
  const close = () => setOpen(null);
  return (
    <>
      <button type="button" className="btn btn-outline" onClick={() => setOpen('item')}>
        New item
      </button>
      <button type="button" className="btn btn-outline max-md:hidden" onClick={() => setOpen('family')}>
        Family
      </button>
      {open === 'item' && <NewItemDialog onClose={close} />}
      {open === 'family' && <FamilyDialog patterns={patterns} categories={categories} onClose={close} />}
    </>
  );
}
