'use client';

import { useState } from 'react';
import type { CompanyTerms } from '@/services/setup/setCompany';
import { useCommand } from '../command/use-command.client';
import { ListBar, WholeList } from '../frame/list';

/** What is said of the company as a whole. */
export function CompanyPage({ terms, may }: { terms: CompanyTerms; may: boolean }) {
  const [said, setSaid] = useState(terms);
  const { busy, failure, sentence, run } = useCommand();
  const dirty = JSON.stringify(said) !== JSON.stringify(terms);
  const set = (change: Partial<CompanyTerms>) => setSaid({ ...said, ...change });
  const fault = (field: string) => (failure?.kind === 'invalid_field' && failure.field === field ? sentence : '');
  return (
    <WholeList>
      <ListBar title="Company" about={may ? undefined : 'only the owner changes this'} />
      <form
        className="grid max-w-2xl gap-4 px-4 py-5"
        onSubmit={(e) => {
          e.preventDefault();
          run('set-company', { ...said, was: terms });
        }}
      >
        <label className="grid gap-1">
          <span className="second">Name</span>
          <input
            className="entry"
            value={said.name}
            maxLength={120}
            disabled={!may}
            aria-invalid={fault('name') !== ''}
            onChange={(e) => set({ name: e.target.value })}
          />
          <span className="fault">{fault('name')}</span>
        </label>
        <label className="grid gap-1">
          <span className="second">Invoice address; places may have their own</span>
          <textarea
            className="entry h-auto py-1"
            rows={3}
            maxLength={400}
            value={said.invoiceAddress}
            disabled={!may}
            onChange={(e) => set({ invoiceAddress: e.target.value })}
          />
        </label>
        <label className="grid gap-1">
          <span className="second">Sender of mail to suppliers</span>
          <input
            className="entry"
            value={said.mailFrom}
            maxLength={200}
            disabled={!may}
            onChange={(e) => set({ mailFrom: e.target.value })}
          />
        </label>
        <label className="grid gap-1 sm:w-72">
          <span className="second">Where no supplier’s price applies, an order proposes first</span>
          <select
            className="entry"
            value={said.costOrder}
            disabled={!may}
            onChange={(e) => set({ costOrder: e.target.value as CompanyTerms['costOrder'] })}
          >
            <option value="standard_first">the standard cost</option>
            <option value="last_first">the last price paid</option>
          </select>
          <span className="second">and the other one where that is not on file.</span>
        </label>
        <label className="grid gap-1 sm:w-72">
          <span className="second">Our own item numbers begin with</span>
          <input
            className="entry"
            value={said.itemPrefix}
            maxLength={10}
            disabled={!may}
            onChange={(e) => set({ itemPrefix: e.target.value })}
          />
          <span className="second">For example {said.itemPrefix}00042.</span>
        </label>
        {may && (
          <div className="flex items-center gap-3">
            <button type="submit" className="btn btn-primary" disabled={busy || !dirty}>
              Save
            </button>
            <span className="second">{dirty ? '' : 'Nothing is changed yet.'}</span>
          </div>
        )}
        {sentence && failure?.kind !== 'invalid_field' && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
      </form>
    </WholeList>
  );
}
