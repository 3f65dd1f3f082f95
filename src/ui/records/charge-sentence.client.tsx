'use client';

import { chargeSentence } from '@/core/landed';
import type { Field } from '@/services/sheets/readRecords';
import { RecordField } from './record-field.client';

type Cells = Readonly<Record<string, string>>;

/** The same sentence with blanks to fill in. */
export function ChargeBlanks(props: {
  fields: readonly Field[];
  cells: Cells;
  given: Cells;
  faultOf: (key: string) => string;
  onChange: (key: string, value: string) => void;
}) {
  const { cells } = props;
  const kind = cells.amount_kind;
  const blank = (key: string, width: string) => {
    const field = props.fields.find((f) => f.key === key);
    if (!field || key in props.given) return null;
    return (
      <span className={`inline-block align-top ${width}`}>
        <RecordField
          field={{ ...field, explain: key === 'on_charges' || key === 'amount' ? '' : '' }}
          label={false}
          value={cells[key] ?? ''}
          fault={props.faultOf(key)}
          fixed={false}
          onChange={(v) => props.onChange(key, v)}
        />
      </span>
    );
  };
  return (
    <div className="grid gap-3">
      <p className="flex flex-wrap items-start gap-x-2 gap-y-1 leading-7">
        {!('supplier' in props.given) && (
          <>
            <span>For supplier</span> {blank('supplier', 'w-28')}
          </>
        )}
        {blank('name', 'w-44')} <span>is a</span> {blank('sign', 'w-28')} <span>of</span> {blank('amount_kind', 'w-36')}
        {kind !== 'duty rate' && (
          <>
            {kind === 'asked each time' && <span>, usually</span>} {blank('amount', 'w-24')}
            {kind === 'percent' ? <span>%</span> : blank('currency', 'w-20')}
          </>
        )}
        {(kind === 'percent' || kind === 'duty rate') && (
          <>
            <span>of goods and</span> {blank('on_charges', 'w-56')}
          </>
        )}
        {kind !== 'duty rate' && (
          <>
            <span>, spread by</span> {blank('spread', 'w-28')}
          </>
        )}
        <span>, into</span> {blank('into_cost', 'w-44')}
        {cells.into_cost !== 'stock cost' && (
          <>
            <span>account</span> {blank('account', 'w-24')}
          </>
        )}
        <span>; reckoned as number</span> {blank('position', 'w-16')}
      </p>
      <p className="second" aria-live="polite">
        {cells.name ? chargeSentence(cells) : 'Fill in what it is called and how it is reckoned.'}
      </p>
    </div>
  );
}
