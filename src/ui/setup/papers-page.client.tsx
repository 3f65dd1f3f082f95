'use client';

import { useState } from 'react';
import {
  letterheadOf,
  numberOf,
  type PaperColumn,
  type PaperLanguage,
  paperColumns,
  paperLanguages,
  paperWords,
  parseNumberPattern,
} from '@/core/purchase';
import type { PapersView, TypedPapers } from '@/services/setup/setPapers';
import { useCommand } from '../command/use-command.client';
import { Labelled } from '../frame/labelled';
import { ListBar, WholeList } from '../frame/list';
import { PaperSheet } from '../orders/paper-sheet';

const columnWords: Readonly<Record<PaperColumn, string>> = {
  their_number: 'their number',
  our_number: 'our number',
  makers_number: 'the maker’s number',
  base_quantity: 'quantity in base units',
  references: 'what it is bought for',
  barcode: 'the number as a barcode, on the PDF',
};
const languageNames: Readonly<Record<PaperLanguage, string>> = { en: 'English', de: 'German', fr: 'French' };

/** How orders are numbered and what stands on their paper, with a made-up order beside it that shows each change at once. */
export function PapersPage({ view }: { view: PapersView }) {
  const { typed, may, today, sample } = view;
  const [said, setSaid] = useState<TypedPapers>(typed);
  const [language, setLanguage] = useState<PaperLanguage>('en');
  const { busy, failure, sentence, run } = useCommand();
  const faultAt = (field: string) => (failure?.kind === 'invalid_field' && failure.field === field ? sentence : '');
  const dirty = JSON.stringify(said) !== JSON.stringify(typed);
  const { setup } = said;
  const put = (more: Partial<TypedPapers['setup']>) => setSaid({ ...said, setup: { ...setup, ...more } });
  const text = setup.texts[language];
  const putText = (more: Partial<typeof text>) => put({ texts: { ...setup.texts, [language]: { ...text, ...more } } });
  const pattern = parseNumberPattern(said.pattern);
  const number = pattern.ok ? numberOf(pattern.value, today, Number(said.next) || 1) : '–';
  const area = (label: string, value: string, most: number, change: (now: string) => void, placeholder = '') => (
    <Labelled label={label}>
      <textarea
        className="entry h-auto w-full py-1.5"
        rows={3}
        maxLength={most}
        placeholder={placeholder}
        value={value}
        disabled={!may}
        onChange={(e) => change(e.target.value)}
      />
    </Labelled>
  );
  return (
    <WholeList {...(may ? {} : { read: 'Orders on paper' })}>
      <ListBar title="Orders on paper" about={may ? undefined : 'only the owner changes these'} />
      <div className="flex items-start gap-8 px-4 py-5 max-xl:flex-col">
        <form
          className="grid w-[380px] max-w-full shrink-0 gap-6 [&_label]:w-full"
          onSubmit={(e) => {
            e.preventDefault();
            run('set-papers', { ...said, was: typed });
          }}
        >
          <section className="grid gap-2">
            <h2 className="head">Numbers</h2>
            <div className="grid grid-cols-3 gap-3">
              <Labelled label="Pattern" fault={faultAt('pattern')}>
                <input
                  className="entry w-full font-mono"
                  maxLength={24}
                  value={said.pattern}
                  disabled={!may}
                  onChange={(e) => setSaid({ ...said, pattern: e.target.value })}
                />
              </Labelled>
              <Labelled label="Next" fault={faultAt('next')}>
                <input
                  className="entry figure w-full"
                  inputMode="numeric"
                  maxLength={8}
                  value={said.next}
                  disabled={!may}
                  onChange={(e) => setSaid({ ...said, next: e.target.value })}
                />
              </Labelled>
              <Labelled label="Begins at" fault={faultAt('start')}>
                <input
                  className="entry figure w-full"
                  inputMode="numeric"
                  maxLength={8}
                  value={said.start}
                  disabled={!may}
                  onChange={(e) => setSaid({ ...said, start: e.target.value })}
                />
              </Labelled>
            </div>
            <p className="second">
              The next order that is approved is <strong className="code text-ink">{number}</strong>. YYYY, YY and MM
              are of its day, # is the running number; with MM it begins anew each month, with YY alone each year.
            </p>
          </section>
          <section className="grid gap-2">
            <h2 className="head">Paper</h2>
            {area(
              'Letterhead',
              setup.letterhead,
              400,
              (letterhead) => put({ letterhead }),
              letterheadOf({ ...sample, setup: { ...setup, letterhead: '' } }),
            )}
            {area('Foot of every page', setup.foot, 400, (foot) => put({ foot }), 'register, tax number, bank')}
            <fieldset className="grid gap-1">
              <legend className="second mb-1">What it shows</legend>
              {paperColumns.map((c) => (
                <label key={c} className="flex min-h-6 items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={!setup.hides.includes(c)}
                    disabled={!may}
                    onChange={(e) =>
                      put({ hides: e.target.checked ? setup.hides.filter((h) => h !== c) : [...setup.hides, c] })
                    }
                  />
                  {columnWords[c]}
                </label>
              ))}
            </fieldset>
          </section>
          <section className="grid gap-2">
            <h2 className="head">Texts</h2>
            <fieldset className="flex gap-1">
              <legend className="second mb-1">For suppliers whose language is</legend>
              {paperLanguages.map((l) => (
                <button
                  key={l}
                  type="button"
                  className="chip"
                  aria-pressed={language === l}
                  onClick={() => setLanguage(l)}
                >
                  {languageNames[l]}
                </button>
              ))}
            </fieldset>
            {area('Above the lines', text.opening, 1000, (opening) => putText({ opening }))}
            {area('Below them', text.closing, 1000, (closing) => putText({ closing }))}
          </section>
          {may && (
            <div className="flex items-center gap-3">
              <button type="submit" className="btn btn-primary" disabled={busy || !dirty}>
                Save
              </button>
              <span className="second">{dirty ? 'Papers from now on are made so.' : 'Nothing is changed yet.'}</span>
            </div>
          )}
          {sentence && failure?.kind !== 'invalid_field' && (
            <p className="fault" role="alert">
              {sentence}
            </p>
          )}
        </form>
        <section aria-label="How it looks" className="min-w-0 grow">
          <p className="second mb-2">A made-up order, as it would be printed</p>
          <article className="max-w-[190mm] border border-rule bg-white p-[10mm] text-[12px] text-black max-sm:p-3">
            <h2 className="mb-5 text-lg font-semibold">
              {paperWords(language).order} {number}
            </h2>
            <PaperSheet paper={{ ...sample, language, setup }} />
          </article>
        </section>
      </div>
    </WholeList>
  );
}
