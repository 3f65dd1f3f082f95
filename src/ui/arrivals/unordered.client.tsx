'use client';

import { useState } from 'react';
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
  fault: (index: number, field: 'quantity' | 'price') => string;
}) {
  const { entries, onChange } = props;
  const [round, setRound] = useState(0);
  const put = (index: number, change: Partial<UnorderedEntry>) =>
    onChange(entries.map((e, i) => (i === index ? { ...e, ...change } : e)));
  const typed = (index: number, field: 'quantity' | 'price', label: string, placeholder: string) => {
    const fault = props.fault(index, field);
    const entry = entries[index] as UnorderedEntry;
    return (
      <span>
        <input
          className="entry figure w-20 max-sm:h-10"
          inputMode="decimal"
          data-count={field === 'quantity' ? '' : undefined}
          data-item={field === 'quantity' ? entry.item.id : undefined}
          aria-label={`${label} ${entry.item.name}`}
          aria-invalid={fault !== ''}
          placeholder={placeholder}
          value={entry[field]}
          disabled={field === 'price' && entry.freeOfCharge}
          onChange={(e) => put(index, { [field]: e.target.value })}
          onKeyDown={(e) => e.key === 'Enter' && e.preventDefault()}
        />
        {fault && (
          <span className="fault block max-w-60" role="alert">
            {fault}
          </span>
        )}
      </span>
    );
  };
  return (
    <section className="border-t border-rule px-4 py-3" aria-labelledby="unordered">
      <h2 id="unordered" className="head">
        Came without being ordered
      </h2>
      {entries.map(({ item, quantity, freeOfCharge }, i) => (
        <div key={item.id} className="flex flex-wrap items-start gap-x-3 gap-y-1 py-1.5">
          <span className="min-w-56 flex-1">
            <span className="name">{item.name}</span>
            <span className="code block">{item.number}</span>
          </span>
          {typed(i, 'quantity', 'Came of', '')}
          <span className="w-16 pt-1">{plural(item.unit, quantity.trim() === '1' ? 1_000_000 : 2_000_000)}</span>
          {props.currency !== null && (
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
        </div>
      ))}
      <div className="flex max-w-xl pt-1">
        <ItemField
          key={round}
          label="What came without being ordered"
          placeholder="Add what nobody ordered: scan it, or type name or number"
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
