'use client';

import { useEffect, useRef, useState } from 'react';
import type { PolicyField } from '@/core/policy';
import type { PolicyEdit } from '@/services/planning/policyEdits';
import type { PolicyLine } from '@/services/planning/readPolicies';
import { takeScans } from '../grid/scans';

/** Cells of a line that are not saved yet, with what was in them. */
export type Draft = {
  readonly index: number;
  readonly itemId: number;
  readonly locationId: number | null;
  readonly was: Readonly<Partial<Record<PolicyField, string>>>;
  readonly now: Readonly<Partial<Record<PolicyField, string>>>;
};
export type Drafts = ReadonlyMap<string, Draft>;
export type CellChange = {
  readonly index: number;
  readonly line: Pick<PolicyLine, 'itemId' | 'locationId' | 'own'>;
  readonly field: PolicyField;
  readonly text: string;
};

export const keyOf = (l: { readonly itemId: number; readonly locationId: number | null }) =>
  `${l.itemId}/${l.locationId ?? 0}`;

/** Drafts with changed cells in them; a cell that says again what was there is no change. */
export function withCells(drafts: Drafts, changes: readonly CellChange[]): Drafts {
  const next = new Map(drafts);
  for (const { index, line, field, text } of changes) {
    const key = keyOf(line);
    const had = next.get(key);
    const was = had?.was[field] ?? line.own[field] ?? '';
    const { [field]: _was, ...others } = had?.was ?? {};
    const { [field]: _now, ...rest } = had?.now ?? {};
    const same = text === was;
    const draft: Draft = {
      ...{ index, itemId: line.itemId, locationId: line.locationId },
      was: same ? others : { ...others, [field]: was },
      now: same ? rest : { ...rest, [field]: text },
    };
    if (Object.keys(draft.now).length === 0) next.delete(key);
    else next.set(key, draft);
  }
  return next;
}

export const editsOf = (drafts: Iterable<Draft>): PolicyEdit[] =>
  [...drafts].map(({ itemId, locationId, was, now }) => ({
    ...{ itemId, locationId },
    was: was as Record<string, string>,
    now: now as Record<string, string>,
  }));

const MOST_STEPS = 100;

/** What is typed, filled, pasted and set in the sheet before it is saved, step by step to be taken back. Typing on in one cell
 *  is one step. What a scan types into a cell is taken out again. */
export function usePolicyDrafts() {
  const [drafts, setDrafts] = useState<Drafts>(new Map());
  const now = useRef(drafts);
  now.current = drafts;
  const steps = useRef<Drafts[]>([]);
  const typing = useRef('');
  const before = useRef<Drafts | null>(null);

  const put = (next: Drafts, step: string) => {
    if (step === '' || step !== typing.current) {
      steps.current = [...steps.current.slice(1 - MOST_STEPS), now.current];
    }
    typing.current = step;
    now.current = next;
    setDrafts(next);
  };
  useEffect(
    () =>
      takeScans({
        begins: () => {
          before.current = now.current;
        },
        putBack: () => {
          if (before.current) setDrafts(before.current);
        },
      }),
    [],
  );
  return {
    drafts,
    /** Changes cells; `step` names a cell that is typed in, so that its letters are one step. */
    change: (changes: readonly CellChange[], step = '') => put(withCells(now.current, changes), step),
    back: () => {
      const last = steps.current.pop();
      typing.current = '';
      if (last) setDrafts(last);
    },
    canGoBack: steps.current.length > 0,
    /** Takes drafts out that were saved as they were. */
    settle: (saved: Drafts) => {
      steps.current = [];
      typing.current = '';
      setDrafts((all) => new Map([...all].filter(([key, d]) => saved.get(key) !== d)));
    },
    clear: () => put(new Map(), ''),
  };
}
