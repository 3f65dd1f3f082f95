'use client';

import { type FormEvent, useState } from 'react';
import { useCommand } from '../command/use-command.client';
import { type FieldItem, ItemField } from '../items/item-field.client';

const figures = [
  ['packs', 'Packs', 'packs', 'w-20'],
  ['price', 'Price per pack', 'list price', 'w-24'],
] as const;

/** Another line on a draft: an item by name or number, how many packs, for which place. An item that is not there yet is made
 *  on the way. */
export function AddLine(props: { orderId: number; places: readonly { readonly id: number; readonly name: string }[] }) {
  const { busy, failure, sentence, run } = useCommand();
  const [item, setItem] = useState<FieldItem | null>(null);
  const [lines, setLines] = useState(0);
  const [rest, setRest] = useState({ packs: '', price: '', locationId: props.places[0]?.id ?? 0 });
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (!item) return;
    const outcome = await run('add-order-line', { orderId: props.orderId, itemId: item.id, ...rest });
    if (!outcome.ok) return;
    setItem(null);
    setLines(lines + 1);
    setRest({ ...rest, packs: '', price: '' });
  };
  const fault = (name: string) => (failure?.kind === 'invalid_field' && failure.field === name ? sentence : '');
  return (
    <form
      onSubmit={add}
      className="flex flex-wrap items-start gap-2 border-t border-rule px-4 py-3"
      aria-label="Add a line"
    >
      <ItemField
        key={lines}
        label="Item to add"
        placeholder="Add an item: name, number or barcode"
        taken={item}
        onTake={setItem}
        autoFocus={lines > 0}
      />
      {figures.map(([name, label, placeholder, width]) => (
        <label key={name} className="grid">
          <input
            className={`entry figure ${width}`}
            value={rest[name]}
            inputMode="decimal"
            placeholder={placeholder}
            aria-label={label}
            onChange={(e) => setRest({ ...rest, [name]: e.target.value })}
          />
          <span className="fault max-w-40">{fault(name)}</span>
        </label>
      ))}
      <select
        className="entry"
        value={rest.locationId}
        aria-label="For"
        onChange={(e) => setRest({ ...rest, locationId: Number(e.target.value) })}
      >
        {props.places.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
      <button type="submit" className="btn btn-outline" disabled={busy || !item || rest.packs.trim() === ''}>
        Add
      </button>
      {sentence && failure?.kind !== 'invalid_field' && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
    </form>
  );
}
