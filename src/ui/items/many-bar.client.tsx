'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import type { RecordsView } from '@/services/sheets/readRecords';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { useMay } from '../may-context.client';
import { RecordField } from '../records/record-field.client';

const PATTERN = '\u0000pattern';
/** As many items as an address names. */
const MOST_COUNTED = 400;

/** What can be done with marked items, or with the whole narrowed list: one column changed, a pack pattern taken. What would
 *  change is shown row by row before it does. */
export function ManyBar(props: {
  marked: ReadonlySet<number>;
  list: string;
  count: number;
  narrowed: boolean;
  view: RecordsView;
  patterns: readonly string[];
  onClear: () => void;
}) {
  const { marked, view } = props;
  const router = useRouter();
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const mayCount = useMay('stock.count');
  const [whole, setWhole] = useState(false);
  const [column, setColumn] = useState('category');
  const [text, setText] = useState('');
  const fields = view.fields.filter((f) => !f.isKey && !['name', 'unit', 'successor'].includes(f.key));
  const field = fields.find((f) => f.key === column);
  if (marked.size === 0 && !whole) {
    return props.narrowed && props.count > 0 ? (
      <div className="bar">
        <button type="button" className="link text-action" onClick={() => setWhole(true)}>
          Change all {countOf(props.count, 'item')} of this list
        </button>
        <span className="second">or mark rows with Space</span>
      </div>
    ) : null;
  }
  const prepare = async (event: FormEvent) => {
    event.preventDefault();
    const change = column === PATTERN ? { kind: 'pattern', pattern: text } : { kind: 'field', column, text };
    const ids = whole ? null : [...marked];
    const input = { list: props.list, ids, decimal: format.decimal, change };
    const outcome = await run<{ importId: number }>('change-many', input, { refresh: false });
    if (outcome.ok) router.push(`/sheets/${outcome.value.importId}`);
  };
  const clear = () => {
    setWhole(false);
    props.onClear();
  };
  return (
    <form className="bar items-end" onSubmit={prepare} aria-label="Change many items">
      <strong className="self-center">
        {whole ? `all ${countOf(props.count, 'item')}` : `${countOf(marked.size, 'item')} marked`}
      </strong>
      <label className="flex items-center gap-2 self-center">
        <span>change</span>
        <select
          className="entry"
          aria-label="What to change"
          value={column}
          onChange={(e) => {
            setColumn(e.target.value);
            setText('');
          }}
        >
          {fields.map((f) => (
            <option key={f.key} value={f.key}>
              {f.title}
            </option>
          ))}
          {props.patterns.length > 0 && <option value={PATTERN}>Packs, from a pattern</option>}
        </select>
      </label>
      <span className="self-center">to</span>
      {column === PATTERN ? (
        <select
          className="entry self-center"
          value={text}
          aria-label="Pattern"
          onChange={(e) => setText(e.target.value)}
        >
          <option value="">–</option>
          {props.patterns.map((p) => (
            <option key={p}>{p}</option>
          ))}
        </select>
      ) : (
        field && (
          <span className="w-56 self-center">
            <RecordField
              field={{ ...field, explain: '' }}
              label={false}
              value={text}
              fault=""
              fixed={false}
              onChange={setText}
            />
          </span>
        )
      )}
      <button type="submit" className="btn btn-primary" disabled={busy || (column === PATTERN && text === '')}>
        Show what would change
      </button>
      {!whole && mayCount && marked.size <= MOST_COUNTED && (
        <Link className="btn btn-outline" href={`/stock/counts?items=${[...marked].join(',')}`} prefetch={false}>
          Count them
        </Link>
      )}
      <button type="button" className="btn btn-outline" onClick={clear}>
        {whole ? 'Not all' : 'Unmark'}
      </button>
      {sentence && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
    </form>
  );
}
