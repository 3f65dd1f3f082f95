'use client';

import { type FormEvent, useState } from 'react';
import type { RowFault } from '@/core/sheets';
import type { Field, FormRecord } from '@/services/sheets/readRecords';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { useLeave } from '../frame/use-leave.client';
import { cellSentence } from '../sheets/fault-sentences';
import { ChargeBlanks } from './charge-sentence.client';
import { sectionsOf } from './layouts';
import { RecordField } from './record-field.client';

type Props = {
  sheet: string;
  /** What the form is called: "Change Fen merino, moss", "New pack". */
  title: string;
  fields: readonly Field[];
  /** Null for a new one. */
  record: FormRecord | null;
  /** What is said already and can't be changed here: the item of a pack. */
  given?: Readonly<Record<string, string>>;
  /** What a new record begins with. */
  begins?: Readonly<Record<string, string>>;
  removable?: boolean;
  /** Whether a record that is there can get another number or code. */
  renamable?: boolean;
  onClose: (saved: { ids: readonly number[] } | null) => void;
};

/** A record to change or a new one: fields with their faults beside them, what is still missing beside the button. Nothing
 *  typed goes when saving fails, and leaving with something typed is said first. */
export function RecordDialog(props: Props) {
  const { sheet, fields, record, given = {}, begins = {} } = props;
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const first: Readonly<Record<string, string>> = {
    ...Object.fromEntries(fields.map((f) => [f.key, f.otherwise])),
    ...begins,
    ...record?.cells,
    ...given,
  };
  const [cells, setCells] = useState(first);

  const dirty = fields.some((f) => (cells[f.key] ?? '') !== (first[f.key] ?? ''));
  const missing = fields.filter((f) => f.required && (cells[f.key] ?? '').trim() === '');
  const title = (key: string) => fields.find((f) => f.key === key)?.title ?? key;
  const faults = failure?.kind === 'wrong_rows' ? (failure.faults[0] ?? []) : [];
  const faultOf = (key: string) => {
    const fault = faults.find((f: RowFault) => f.column === key);
    return fault ? cellSentence(fault, title, format) : '';
  };
  const elsewhere = faults.filter((f: RowFault) => !fields.some((x) => x.key === f.column));

  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (busy || missing.length > 0) return;
    // Only what was touched is said, with what tells the record: the rest stays as somebody else may have left it.
    const said = Object.fromEntries(
      fields
        .filter((f) => record === null || f.isKey || f.key in given || (cells[f.key] ?? '') !== (first[f.key] ?? ''))
        .map((f) => [f.key, cells[f.key] ?? '']),
    );
    const key = fields.find((f) => f.isKey)?.key ?? '';
    const from = record && props.renamable ? { from: first[key] ?? '' } : {};
    const records = [{ cells: said, seen: record?.seen ?? '', ...from }];
    const input = { sheet, records, decimal: format.decimal };
    const outcome = await run<{ ids: readonly number[] }>('save-records', input, {
      words: record ? `${props.title}: saved` : `${props.title}: added`,
    });
    if (outcome.ok) props.onClose(outcome.value);
  };
  const { leave, close, said: unsaved } = useLeave(dirty, () => props.onClose(null));
  const takeOff = async () => {
    if (!record) return;
    const input = { sheet, records: [{ cells: keyCells(fields, first), seen: record.seen }] };
    const outcome = await run('remove-records', input, { words: `${props.title}: taken off` });
    if (outcome.ok) props.onClose({ ids: [] });
  };
  const sections = sectionsOf(
    sheet,
    fields.map((f) => f.key),
  );
  const shown = (key: string) => fields.find((f) => f.key === key && !(f.key in given));
  const filled = (keys: readonly string[]) =>
    keys.some((k) => (first[k] ?? '') !== (shown(k)?.otherwise ?? '') || faultOf(k) !== '');

  return (
    <Modal title={props.title} width="w-[720px]" onLeave={leave}>
      <form onSubmit={save} className="flex max-h-[92dvh] flex-col">
        <h2 className="border-b border-ink px-5 py-2.5 text-[15px] font-semibold">{props.title}</h2>
        <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
          {sheet === 'charges' ? (
            <ChargeBlanks
              fields={fields}
              cells={cells}
              given={given}
              faultOf={faultOf}
              onChange={(k, v) => setCells({ ...cells, [k]: v })}
            />
          ) : (
            sections.map((s) => {
              const inside = s.keys.flatMap((k) => shown(k) ?? []);
              if (inside.length === 0) return null;
              const grid = (
                <div className="grid gap-x-4 gap-y-1.5 pt-1 sm:grid-cols-2">
                  {inside.map((f) => (
                    <RecordField
                      key={f.key}
                      field={f}
                      value={cells[f.key] ?? ''}
                      fault={faultOf(f.key)}
                      fixed={record !== null && f.isKey && !props.renamable}
                      onChange={(v) => setCells({ ...cells, [f.key]: v })}
                    />
                  ))}
                </div>
              );
              if (!s.folded) return <div key={s.title}>{grid}</div>;
              return (
                <details key={s.title} className="border-t border-rule py-2" open={filled(s.keys)}>
                  <summary className="cursor-pointer font-semibold">{s.title}</summary>
                  {grid}
                </details>
              );
            })
          )}
        </div>
        <div className="flex flex-wrap items-center gap-3 border-t border-rule-strong bg-paper px-5 py-2.5">
          <button
            type="submit"
            className="btn btn-primary"
            disabled={busy || missing.length > 0 || (record !== null && !dirty)}
          >
            Save
          </button>
          <button type="button" className="btn btn-outline" onClick={leave}>
            {close}
          </button>
          {record && props.removable && (
            <button type="button" className="btn btn-outline" disabled={busy} onClick={takeOff}>
              Take off
            </button>
          )}
          <p className="second min-w-0 flex-1" role="status">
            {unsaved ||
              (missing.length > 0
                ? `Still missing: ${missing.map((f) => f.title).join(', ')}`
                : record !== null && !dirty
                  ? 'Nothing is changed yet.'
                  : '')}
          </p>
          {sentence && (failure?.kind !== 'wrong_rows' || elsewhere.length > 0) && (
            <p className="fault w-full" role="alert">
              {sentence}
            </p>
          )}
        </div>
      </form>
    </Modal>
  );
}

/** The cells that tell a record. */
export const keyCells = (fields: readonly Field[], cells: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(fields.filter((f) => f.isKey).map((f) => [f.key, cells[f.key] ?? '']));
