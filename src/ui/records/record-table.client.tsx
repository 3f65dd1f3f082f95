'use client';

import { type ReactNode, useState } from 'react';
import { chargeSentence } from '@/core/landed';
import type { Field, FormRecord, RecordsView } from '@/services/sheets/readRecords';
import { useFormat } from '../format-context.client';
import { listColumns } from './layouts';
import { RecordDialog } from './record-dialog.client';

/** Records of one kind as a list: each can be changed, new ones added. `given` is what all of them share and the list does
 *  not repeat (the item whose packs they are). */
export function RecordTable(props: {
  view: RecordsView;
  given?: Readonly<Record<string, string>>;
  /** What one is called: "pack". */
  one: string;
  empty: string;
  begins?: Readonly<Record<string, string>>;
  title?: string;
  aside?: ReactNode;
}) {
  const { view, given = {}, one } = props;
  const format = useFormat();
  const [open, setOpen] = useState<FormRecord | 'new' | null>(null);
  const columns = (listColumns[view.sheet] ?? view.fields.map((f) => f.key)).flatMap(
    (key) => view.fields.find((f) => f.key === key && !(key in given)) ?? [],
  );
  // A column that nobody has filled in takes no place, unless it tells one record from another.
  const used = columns.filter(
    (f) => f.isKey || view.records.some((r) => (r.cells[f.key] ?? '') !== (f.kind === 'yes_no' ? 'no' : '')),
  );
  const nameOf = (r: FormRecord) =>
    view.fields
      .filter((f) => f.isKey && !(f.key in given))
      .map((f) => r.cells[f.key])
      .filter(Boolean)
      .join(', ');
  return (
    <section className="pt-5">
      <h2 className="head mx-4">
        <span>{props.title ?? view.title}</span>
        <span className="flex gap-3 font-normal">
          {props.aside}
          {view.may && (
            <button type="button" className="link text-action" onClick={() => setOpen('new')}>
              Add {/^[aeiou]/.test(one) ? 'an' : 'a'} {one}
            </button>
          )}
        </span>
      </h2>
      {view.records.length === 0 ? (
        <p className="second px-4">{props.empty}</p>
      ) : view.sheet === 'charges' ? (
        <ul className="px-4">
          {view.records.map((r) => (
            <li key={r.id} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
              <span>
                {!('supplier' in given) && r.cells.supplier && <span className="code mr-2">{r.cells.supplier}</span>}
                {chargeSentence(r.cells)}
              </span>
              {view.may && <Change name={nameOf(r)} onClick={() => setOpen(r)} />}
            </li>
          ))}
        </ul>
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keys.
        <section className="overflow-x-auto" aria-label={props.title ?? view.title} tabIndex={0}>
          <table className="sheet">
            <thead>
              <tr>
                {used.map((f) => (
                  <th key={f.key} className={f.kind === 'number' ? 'figure' : ''}>
                    {f.title}
                  </th>
                ))}
                {view.may && (
                  <th>
                    <span className="sr-only">Change</span>
                  </th>
                )}
              </tr>
            </thead>
            <tbody>
              {view.records.map((r) => (
                <tr key={`${r.id}/${nameOf(r)}`} className="one">
                  {used.map((f, i) => (
                    <td key={f.key} className={f.kind === 'number' ? 'figure' : i === 0 ? 'name min-w-28' : ''}>
                      <CellText field={f} text={r.cells[f.key] ?? ''} names={view.itemNames} format={format} />
                    </td>
                  ))}
                  {view.may && (
                    <td className="figure">
                      <Change name={nameOf(r)} onClick={() => setOpen(r)} />
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {open && (
        <RecordDialog
          key={open === 'new' ? 'new' : open.id}
          sheet={view.sheet}
          title={open === 'new' ? `New ${one}` : `${one[0]?.toUpperCase()}${one.slice(1)} ${nameOf(open)}`}
          fields={view.fields}
          record={open === 'new' ? null : open}
          given={given}
          begins={props.begins}
          removable={view.removable}
          renamable={view.renamable}
          onClose={() => setOpen(null)}
        />
      )}
    </section>
  );
}

const Change = ({ name, onClick }: { name: string; onClick: () => void }) => (
  <button type="button" className="link text-action" aria-label={`Change ${name}`} onClick={onClick}>
    Change
  </button>
);

function CellText(props: {
  field: Field;
  text: string;
  names: RecordsView['itemNames'];
  format: ReturnType<typeof useFormat>;
}) {
  const { field: f, text, format } = props;
  const label = f.refers === 'item' ? props.names[text] : f.suggest.find(([v]) => v === text)?.[1];
  if (text === '' || (f.kind === 'number' && text === '0' && f.otherwise === '0'))
    return <span className="second">–</span>;
  if (f.key === 'amount' || f.key === 'sale_price') return format.price(text.replace(',', '.'));
  if (f.kind === 'yes_no') return text === 'yes' ? 'yes' : <span className="second">–</span>;
  if (f.kind === 'date') return <span className="whitespace-nowrap">{format.dateWithYear(text)}</span>;
  if (label)
    return (
      <>
        {label} <span className="code">{text}</span>
      </>
    );
  return text;
}
