'use client';

import { type KeyboardEvent, useState } from 'react';
import { plural } from '../format';
import { type FieldItem, ItemField } from '../items/item-field.client';

/** What came without being ordered: base units, and a price per base unit where the one on file does not hold. */
export type UnorderedEntry = {
  readonly item: FieldItem;
  readonly quantity: string;
  readonly price: string;
  readonly freeOfCharge: boolean;
};

/** The item once more on the list, or as it stands there. */
export const withItem = (entries: readonly UnorderedEntry[], item: FieldItem): readonly UnorderedEntry[] =>
  entries.some((e) => e.item.id === item.id)
    ? entries
    : [...entries, { item, quantity: '', price: '', freeOfCharge: false }];

/** Goods on the delivery that nobody ordered: an item is found, or made, and counted. `fault` says what is wrong at a place. */
export function Unordered(props: {
  entries: readonly UnorderedEntry[];
  onChange: (entries: readonly UnorderedEntry[]) => void;
  onItem: (item: FieldItem) => void;
  /** Currency of the order; null for whoever may not see prices. */
  currency: string | null;
  onKey: (event: KeyboardEvent<HTMLInputElement>) => void;
  fault: (index: number, field: 'quantity' | 'price') => string;
}) {
  const { entries, onChange } = props;
  const [round, setRound] = useState(0);
  const put = (index: number, change: Partial<UnorderedEntry>) =>
    onChange(entries.map((e, i) => (i === index ? { ...e, ...change } : e)));
  const typed = (index: number, field: 'quantity' | 'price', label: string, placeholder: string) => {
    const entry = entries[index] as UnorderedEntry;
    return (
      <input
        className="entry figure w-full max-sm:h-10"
        inputMode="decimal"
        data-count={field === 'quantity' ? '' : undefined}
        data-item={field === 'quantity' ? entry.item.id : undefined}
        aria-label={`${label} ${entry.item.name}`}
        aria-invalid={props.fault(index, field) !== ''}
        placeholder={placeholder}
        value={entry[field]}
        disabled={field === 'price' && entry.freeOfCharge}
        onChange={(e) => put(index, { [field]: e.target.value })}
        onKeyDown={props.onKey}
      />
    );
  };
  return (
    <section className="border-t border-rule px-4 py-3" aria-labelledby="unordered">
      <h2 id="unordered" className="head">
        Came without being ordered
      </h2>
      {entries.map(({ item, quantity, freeOfCharge }, i) => (
        <div
          key={item.id}
          className="grid max-w-4xl grid-cols-[80px_1fr_auto] items-start gap-x-3 gap-y-1 py-1.5 sm:grid-cols-[minmax(0,1fr)_80px_64px_80px_96px_112px_auto]"
        >
          <span className="max-sm:col-span-full">
            <span className="name">{item.name}</span>
            <span className="code block">{item.number}</span>
          </span>
          {typed(i, 'quantity', 'Came of', '')}
          <span className="pt-1">{plural(item.unit, quantity.trim() === '1' ? 1_000_000 : 2_000_000)}</span>
          {props.currency === null ? (
            <span className="max-sm:hidden sm:col-span-3" />
          ) : (
            <>
              {typed(i, 'price', `Price in ${props.currency} per ${item.unit} of`, 'as on file')}
              <span className="second pt-1">
                {props.currency} per {item.unit}
              </span>
              <label className="flex items-center gap-1.5 pt-1">
                <input
                  type="checkbox"
                  checked={freeOfCharge}
                  onChange={(e) => put(i, { freeOfCharge: e.target.checked, price: '' })}
                />
                free of charge
              </label>
            </>
          )}
          <button
            type="button"
            className="chip"
            aria-label={`Take ${item.name} off the list`}
            onClick={() => onChange(entries.filter((e) => e.item.id !== item.id))}
          >
            Take off
          </button>
          {(['quantity', 'price'] as const).map((field) => {
            const fault = props.fault(i, field);
            return (
              fault && (
                <p key={field} className="fault col-span-full sm:text-right" role="alert">
                  {fault}
                </p>
              )
            );
          })}
        </div>
      ))}
      <div className="flex max-w-xl pt-1">
        <ItemField
          key={round}
          label="What came without being ordered"
          placeholder="scan it, or type name or number"
          taken={null}
          onTake={(item) => {
            if (!item) return;
            setRound(round + 1);
            props.onItem(item);
          }}
        />
      </div>
    </section>
  );
}
