'use client';

import Link from 'next/link';
import type { ItemFile, SellingRow, SourceEstimate } from '@/services/catalogue/readItemFile';
import { useCommand } from '../command/use-command.client';
import { type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListAndPanel } from '../frame/states';
import { EditRecord } from '../records/edit-record.client';
import { RecordTables, type TableOf } from '../records/record-tables';
import { ItemHead } from './item-head';
import { completionWords, originWords, ruleWords } from './words';

/** Everything on file of an item, each part to be changed in place; beside it what it sells at and costs on the shelf. */
export function ItemFilePage({ file }: { file: ItemFile }) {
  const { item, records: r } = file;
  const given = { item: item.number };
  const several = (r.sources?.records.length ?? 0) > 1;
  const tables: readonly TableOf[] = [
    { sheet: 'packs', one: 'pack', empty: `No pack: bought and sold by the ${item.unitName}.` },
    { sheet: 'barcodes', one: 'barcode', empty: 'No code is on its label.' },
    { sheet: 'sources', one: 'source', title: 'Suppliers that sell it', empty: 'No supplier sells it yet.' },
    { sheet: 'prices', one: 'price', title: 'What suppliers charge', empty: 'No price is on file.' },
    ...(several
      ? ([
          {
            sheet: 'source-places',
            one: 'place with its own supplier',
            title: 'Where a place buys otherwise',
            empty: 'Every place buys by the ranks above.',
          },
        ] as const)
      : []),
    {
      sheet: 'sale-prices',
      one: 'sale price',
      title: 'Sale prices of packs and places',
      empty: 'Packs cost what their content does; every place sells at the item’s price.',
    },
    { sheet: 'places', one: 'place', title: 'At the places', empty: 'No shelf place is said.' },
    { sheet: 'seasons', one: 'season', title: 'Seasons', empty: 'Minimum and maximum are the same all year.' },
    { sheet: 'kits', one: 'component', title: 'Made of', empty: 'Not a kit.', given: { kit: item.number } },
    { sheet: 'families', one: 'family', title: 'Family', empty: 'Not one of a family of colours or sizes.' },
  ];
  return (
    <ListAndPanel label="Prices and cost" panel={<FilePanel file={file} />}>
      <ItemHead item={item} here="/file">
        {r.items?.may && <EditRecord view={r.items} label="Change the item" title={`Item ${item.number}`} primary />}
      </ItemHead>
      <Missing file={file} />
      <RecordTables records={r} given={given} tables={tables} />
    </ListAndPanel>
  );
}

/** What is missing, and the way to be done with it. */
function Missing({ file }: { file: ItemFile }) {
  const { busy, sentence, run } = useCommand();
  const { item, missing } = file;
  const may = file.records.items?.may ?? false;
  if (item.toComplete === 0 && missing.length === 0) return null;
  const words = missing.map((m) => completionWords[m]).join(', ');
  return (
    <div className="bar">
      <p>
        {missing.length > 0 ? (
          <>
            <strong>Missing:</strong> {words}
          </>
        ) : (
          'Nothing is missing.'
        )}
      </p>
      {may && item.toComplete === 1 && (
        <button
          type="button"
          className="btn btn-outline ml-auto"
          disabled={busy}
          onClick={() => run('set-complete', { itemId: item.id, complete: true })}
        >
          {missing.length > 0 ? 'It is meant so' : 'It is complete'}
        </button>
      )}
      {sentence && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
    </div>
  );
}

function FilePanel({ file }: { file: ItemFile }) {
  const format = useFormat();
  const { item, currency, proposed } = file;
  return (
    <div className="grid gap-6">
      <section>
        <h2 className="head">
          Sells at <span className="font-normal text-muted">{currency}</span>
        </h2>
        {file.selling.every((s) => s.everywhere === null && s.at.length === 0) && (
          <p className="second">No sale price is on file.</p>
        )}
        {file.selling.map((s) => (
          <Selling key={s.pack ?? ''} row={s} unit={item.unitName} format={format} />
        ))}
      </section>
      {file.sources.map((s) => (
        <Landed key={s.sourceId} source={s} unit={item.unitName} currency={currency} format={format} />
      ))}
      {proposed && file.sources.every((s) => s.estimate === null) && (
        <section>
          <h2 className="head">Without a price</h2>
          <p>
            An order proposes {format.price(proposed.amount)} {currency} a {item.unitName}:{' '}
            {originWords[proposed.origin]}.
          </p>
        </section>
      )}
      <section>
        <h2 className="head">Bought by</h2>
        <p>
          {file.buyer
            ? `${file.buyer.name}, as its ${file.buyer.by} says`
            : 'Nobody is named: item, category and supplier say none.'}
        </p>
      </section>
    </div>
  );
}

function Selling({ row, unit, format }: { row: SellingRow; unit: string; format: Format }) {
  const { everywhere } = row;
  const money = (amount: string) => format.price(Number(amount).toFixed(2));
  return (
    <div className="py-[3px]">
      <div className="flex justify-between gap-3">
        <span>{row.pack ?? unit}</span>
        <span className="figure font-semibold">{everywhere ? money(everywhere.amount) : '–'}</span>
      </div>
      {everywhere && (
        <p className="second">
          {everywhere.how === 'computed' ? 'from the price of one' : 'set'},{' '}
          {everywhere.withTax ? `with ${everywhere.taxRate ? `${everywhere.taxRate} % ` : ''}tax` : 'without tax'}
          {row.net && everywhere.withTax && `, ${money(row.net)} without`}
          {row.margin && `; margin ${row.margin} %`}
        </p>
      )}
      {row.at.map((a) => (
        <div key={a.place} className="flex justify-between gap-3">
          <span className="second">
            {a.place}, {a.price.how === 'computed' ? 'from its price of one' : 'set there'}
          </span>
          <span className="figure">{money(a.price.amount)}</span>
        </div>
      ))}
    </div>
  );
}

/** The sum that leads from the list price to the shelf, as on paper. */
function Landed(props: { source: SourceEstimate; unit: string; currency: string; format: Format }) {
  const { source: s, unit, currency, format } = props;
  const e = s.estimate;
  return (
    <section>
      <h2 className="head">
        <span>
          From{' '}
          <Link className="link" href={`/suppliers/${s.supplierId}`} prefetch={false}>
            {s.supplier}
          </Link>
        </span>
        {e && (
          <span className="font-normal text-muted">
            {format.quantity(e.quantity)} {plural(unit, e.quantity)}
          </span>
        )}
      </h2>
      {!e && (
        <p className="second">No price is in force, or no exchange rate is on file: the landed cost can’t be said.</p>
      )}
      {e && (
        <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-[3px]">
          {e.currency !== currency && (
            <SumRow name={`Goods, ${e.currency}`} figure={format.amount(e.net, e.currency)} muted />
          )}
          <SumRow name={`Goods, ${currency}`} figure={format.amount(e.goods, currency)} />
          {e.shares.map((c) => (
            <SumRow
              key={c.name}
              name={`${c.name}${c.duty ? ` ${c.duty} %` : ''}${c.into === 'stock' ? '' : c.into === 'expense' ? ', not into cost' : ', recoverable'}`}
              figure={`${c.minor < 0 ? '−' : '+'}${format.amount(Math.abs(c.minor), currency)}`}
              muted={c.into !== 'stock'}
            />
          ))}
          <SumRow name="Landed" figure={format.amount(e.landed, currency)} result />
          {e.each && <SumRow name={`a ${unit}`} figure={format.price(e.each)} result={false} strong />}
        </dl>
      )}
      {e && e.shares.length > 0 && <p className="second">Reckoned as if it were ordered alone.</p>}
      {e?.asked.map((name) => (
        <p key={name} className="second">
          {name} is asked each time and counts 0 here.
        </p>
      ))}
      {e?.faults.includes('no_weight') && (
        <p className="fault">No weight is on file: what goes by weight is spread by value, or left out.</p>
      )}
      {e?.dutyUnknown && <p className="fault">No duty rate fits its HS code and origin.</p>}
      {s.places.length > 0 && (
        <p className="second pt-1">
          {s.places.map((p) => p.place).join(', ')} {s.places.length === 1 ? 'buys' : 'buy'} here:{' '}
          {ruleWords((s.places[0] as SourceEstimate['places'][number]).rule)}
        </p>
      )}
    </section>
  );
}

const SumRow = (p: { name: string; figure: string; muted?: boolean; result?: boolean; strong?: boolean }) => (
  <div className="contents">
    <dt className={p.muted ? 'second' : p.result ? 'font-semibold' : ''}>{p.name}</dt>
    <dd
      className={`figure ${p.result ? 'border-t border-ink font-semibold' : ''} ${p.muted ? 'text-muted' : ''} ${p.strong ? 'font-semibold' : ''}`}
    >
      {p.figure}
    </dd>
  </div>
);
