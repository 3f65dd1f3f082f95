'use client';

import { useEffect, useId, useState } from 'react';
import type { Found } from '@/services/people/readFind';
import type { Field } from '@/services/sheets/readRecords';
import { find } from '../items/find';

type Props = {
  field: Field;
  value: string;
  fault: string;
  fixed: boolean;
  label?: boolean;
  onChange: (value: string) => void;
};

const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const isWeek = (f: Field) => f.kind === 'choice' && f.choices.length === 0;
/** Addresses, notes and texts may have several lines; names and what is chosen from a list have one. */
const isLong = (f: Field) =>
  (f.most ?? 0) >= 200 &&
  f.suggest.length === 0 &&
  !f.isKey &&
  !['name', 'supplier_item_name', 'on_charges'].includes(f.key);

/** One field of a record: what it is called, a line on what belongs there, its fault in words. */
export function RecordField({ field: f, value, fault, fixed, onChange, label = true }: Props) {
  const id = useId();
  const named = { id, 'aria-invalid': fault !== '', 'aria-describedby': `${id}-say` } as const;
  return (
    <div className={`grid content-start gap-0.5 ${isLong(f) || isWeek(f) ? 'sm:col-span-2' : ''}`}>
      {label && f.kind !== 'yes_no' && (
        <label htmlFor={id} className="second">
          {f.title}
          {f.required && !fixed && <span aria-hidden="true"> *</span>}
        </label>
      )}
      <Control field={f} value={value} fixed={fixed} named={named} label={label} onChange={onChange} />
      <span id={`${id}-say`} className={fault ? 'fault' : 'second min-h-4'} role={fault ? 'alert' : undefined}>
        {fault || (fixed ? '' : f.explain)}
      </span>
    </div>
  );
}

type Named = { id: string; 'aria-invalid': boolean; 'aria-describedby': string };

function Control({ field: f, value, fixed, named, label, onChange }: Omit<Props, 'fault'> & { named: Named }) {
  if (fixed)
    return (
      <input {...named} className="entry w-full border-rule-strong bg-transparent text-muted" value={value} readOnly />
    );
  if (f.kind === 'yes_no')
    return (
      <label className="flex min-h-7 items-center gap-2" htmlFor={named.id}>
        <input
          {...named}
          type="checkbox"
          className="size-4 accent-action"
          checked={value === 'yes'}
          onChange={(e) => onChange(e.target.checked ? 'yes' : 'no')}
        />
        {label ? f.title : <span className="sr-only">{f.title}</span>}
      </label>
    );
  if (isWeek(f)) return <WeekControl title={f.title} value={value} onChange={onChange} />;
  if (f.choices.length > 0)
    return (
      <select
        {...named}
        className="entry w-full"
        value={value}
        aria-label={label ? undefined : f.title}
        onChange={(e) => onChange(e.target.value)}
      >
        {(value === '' || !f.required) && f.otherwise === '' && <option value="">–</option>}
        {f.choices.map((c) => (
          <option key={c} value={c}>
            {c}
          </option>
        ))}
      </select>
    );
  if (f.kind === 'date')
    return (
      <input {...named} type="date" className="entry w-full" value={value} onChange={(e) => onChange(e.target.value)} />
    );
  if (isLong(f))
    return (
      <textarea
        {...named}
        className="entry h-auto w-full py-1"
        rows={3}
        maxLength={f.most ?? undefined}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    );
  if (f.refers === 'item') return <ItemControl named={named} value={value} onChange={onChange} />;
  return (
    <>
      <input
        {...named}
        className={`entry w-full ${f.kind === 'number' ? 'figure' : ''}`}
        inputMode={f.kind === 'number' ? 'decimal' : undefined}
        maxLength={f.most ?? 60}
        value={value}
        aria-label={label ? undefined : f.title}
        list={f.suggest.length > 0 ? `${named.id}-list` : undefined}
        autoComplete="off"
        onChange={(e) => onChange(e.target.value)}
      />
      {f.suggest.length > 0 && (
        <datalist id={`${named.id}-list`}>
          {f.suggest.map(([v, name]) => (
            <option key={v} value={v}>
              {name}
            </option>
          ))}
        </datalist>
      )}
    </>
  );
}

/** Seven days to switch on and off; kept as the words a spreadsheet has. */
function WeekControl({ title, value, onChange }: { title: string; value: string; onChange: (v: string) => void }) {
  const on = daysIn(value);
  return (
    <fieldset className="flex flex-wrap gap-1.5">
      <legend className="sr-only">{title}</legend>
      {weekdays.map((d) => (
        <button
          key={d}
          type="button"
          className="chip"
          aria-pressed={on.has(d)}
          onClick={() => {
            const next = new Set(on);
            if (!next.delete(d)) next.add(d);
            onChange(next.size === 0 ? 'none' : weekdays.filter((x) => next.has(x)).join(' '));
          }}
        >
          {d}
        </button>
      ))}
    </fieldset>
  );
}

/** The days that words such as "Mon-Fri" or "daily" mean. */
export function daysIn(text: string): Set<string> {
  if (text === 'daily') return new Set(weekdays);
  const days = new Set<string>();
  for (const part of text.split(/[\s,]+/)) {
    const [from, to] = part.split('-').map((d) => (weekdays as readonly string[]).indexOf(d));
    if (from === undefined || from < 0) continue;
    for (let d = from; d <= (to ?? from); d += 1) days.add(weekdays[d] as string);
  }
  return days;
}

/** An item number, with what fits what was typed so far. */
function ItemControl({ named, value, onChange }: { named: Named; value: string; onChange: (v: string) => void }) {
  const [found, setFound] = useState<Found['items']>([]);
  useEffect(() => {
    if (value.trim().length < 2) return;
    let stale = false;
    const timer = setTimeout(async () => {
      const now = await find(value);
      if (!stale && now) setFound(now.items);
    }, 120);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [value]);
  return (
    <>
      <input
        {...named}
        className="entry w-full"
        value={value}
        list={`${named.id}-items`}
        autoComplete="off"
        placeholder="number, or part of the name"
        onChange={(e) => onChange(e.target.value)}
      />
      <datalist id={`${named.id}-items`}>
        {found.map((i) => (
          <option key={i.id} value={i.number}>
            {i.name}
          </option>
        ))}
      </datalist>
    </>
  );
}
