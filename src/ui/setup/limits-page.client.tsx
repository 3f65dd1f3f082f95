'use client';

import { type ReactNode, useState } from 'react';
import type { LimitsView, TypedSettings } from '@/services/setup/setLimits';
import { useCommand } from '../command/use-command.client';
import { ListBar, WholeList } from '../frame/list';

type Key = Exclude<keyof TypedSettings, 'leadTimeRule' | 'promiseRule'>;

/** Limits that classes, lead times, second counts and promises go by, each said in a sentence. */
export function LimitsPage({ view }: { view: LimitsView }) {
  const { typed, may, currency } = view;
  const [said, setSaid] = useState(typed);
  const { busy, failure, sentence, run } = useCommand();
  const dirty = JSON.stringify(said) !== JSON.stringify(typed);
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  const field = (key: Key, label: string) => (
    <input
      className="entry figure w-16"
      inputMode="decimal"
      aria-label={label}
      aria-invalid={wrong === key}
      maxLength={12}
      value={said[key]}
      disabled={!may}
      onChange={(e) => setSaid({ ...said, [key]: e.target.value })}
    />
  );
  const fault = (...keys: readonly Key[]) =>
    keys.includes(wrong as Key) && (
      <p className="fault" role="alert">
        {sentence}
      </p>
    );
  return (
    <WholeList {...(may ? {} : { read: 'Limits' })}>
      <ListBar title="Limits" about={may ? undefined : 'only the owner changes these'} />
      <form
        className="grid max-w-2xl gap-6 px-4 py-5"
        onSubmit={(e) => {
          e.preventDefault();
          run('set-limits', { ...said, was: typed });
        }}
      >
        <Part title="Classes by value">
          <Sentence>
            A makes the first {field('a', 'Share of A in percent')} % of what a year costs at a place, B goes up to{' '}
            {field('b', 'Share of B in percent')} %, C is the rest.
          </Sentence>
          {fault('a', 'b')}
        </Part>
        <Part title="Classes by regularity">
          <Sentence>
            X varies from week to week by up to {field('x', 'Variation of X')} of its mean, Y by up to{' '}
            {field('y', 'Variation of Y')}, Z by more.
          </Sentence>
          {fault('x', 'y')}
        </Part>
        <Part title="Lead times">
          <Sentence>
            What counts is{' '}
            <select
              className="entry"
              aria-label="Lead time that counts"
              value={said.leadTimeRule}
              disabled={!may}
              onChange={(e) => setSaid({ ...said, leadTimeRule: e.target.value as TypedSettings['leadTimeRule'] })}
            >
              <option value="measured">what was measured</option>
              <option value="stated">what the supplier states</option>
            </select>
            {said.leadTimeRule === 'measured' && (
              <>
                , from {field('least', 'Deliveries from which measured lead times count')} deliveries on. From{' '}
                {field('empirical', 'Deliveries from which each lead time is taken as it was')} on, each of them is
                taken as it was, instead of their mean and deviation
              </>
            )}
            .
          </Sentence>
          {fault('least', 'empirical')}
        </Part>
        <Part title="Second counts">
          <Sentence>
            A line of a count is counted again when it differs by more than {field('recountShare', 'Share in percent')}{' '}
            % of what was expected, or by more than {field('recountAmount', `Amount in ${currency}`)} {currency}. 0
            switches a limit off.
          </Sentence>
          {fault('recountShare', 'recountAmount')}
        </Part>
        <Part title="Promises to customers">
          <Sentence>
            Their orders are given stock {field('promiseDays', 'Days ahead')} days before they go out. Of an item{' '}
            <select
              className="entry"
              aria-label="How much may be promised"
              value={said.promiseRule}
              disabled={!may}
              onChange={(e) => setSaid({ ...said, promiseRule: e.target.value as TypedSettings['promiseRule'] })}
            >
              <option value="stock">what lies there</option>
              <option value="on_the_way">what lies there and what is on the way</option>
              <option value="without_limit">any quantity</option>
            </select>{' '}
            may be promised; more is warned about.
          </Sentence>
          {fault('promiseDays')}
        </Part>
        <Part title="Ways to cover a need">
          <Sentence>
            What lies there costs {field('carrying', 'Carrying cost in percent')} % of its value a year, placing an
            order {field('orderCost', `Order cost in ${currency}`)} {currency}, sending goods to another of our places{' '}
            {field('transport', `Transport in ${currency}`)} {currency}.
          </Sentence>
          {fault('carrying', 'orderCost', 'transport')}
        </Part>
        <Part title="Purchase orders">
          <Sentence>
            From a sum of {field('fourEyes', `Four eyes from, in ${currency}`)} {currency} on, an order is approved by
            somebody else than who entered it (empty: never). One that is not confirmed after{' '}
            {field('confirmDays', 'Days to wait for a confirmation')} days is asked after.
          </Sentence>
          {fault('fourEyes', 'confirmDays')}
        </Part>
        {may && (
          <div className="flex items-center gap-3">
            <button type="submit" className="btn btn-primary" disabled={busy || !dirty}>
              Save
            </button>
            <span className="second">
              {dirty ? 'Classes are made again and everything is reckoned by them.' : 'Nothing is changed yet.'}
            </span>
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

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="grid gap-1">
    <h2 className="font-semibold">{title}</h2>
    {children}
  </section>
);
const Sentence = ({ children }: { children: ReactNode }) => <p className="leading-9">{children}</p>;
