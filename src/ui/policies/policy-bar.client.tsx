'use client';

import { useEffect, useState } from 'react';
import type { PolicyEffect } from '@/services/planning/previewPolicies';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { type Drafts, editsOf } from './use-policy-drafts.client';

const PAUSE_MS = 350;

/** What the drafts would do, asked for when one stops typing; null until it is known. */
export function useEffectOf(drafts: Drafts): PolicyEffect | null {
  const [known, setKnown] = useState<{ readonly of: Drafts; readonly effect: PolicyEffect | null }>({
    of: drafts,
    effect: null,
  });
  useEffect(() => {
    if (drafts.size === 0) return;
    let stale = false;
    const timer = setTimeout(async () => {
      const response = await fetch('/api/policies/effect', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ edits: editsOf(drafts.values()) }),
      }).catch(() => null);
      const body = response?.ok ? ((await response.json()) as { value: PolicyEffect }) : null;
      if (!stale) setKnown({ of: drafts, effect: body?.value ?? null });
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [drafts]);
  return known.of === drafts ? known.effect : null;
}

/** What is changed and not saved, what it would do to needs and money, and the way to save what is right. */
export function PolicyBar(props: {
  drafts: Drafts;
  effect: PolicyEffect | null;
  currency: string;
  busy: boolean;
  sentence: string | null;
  canGoBack: boolean;
  onBack: () => void;
  onSave: () => void;
}) {
  const { drafts, effect, currency } = props;
  const format = useFormat();
  const cells = [...drafts.values()].reduce((n, d) => n + Object.keys(d.now).length, 0);
  const wrong = new Set(effect?.faults.map((f) => f.row)).size;
  const moved = (before: string, after: string) => (before === after ? before : `${before} → ${after}`);
  return (
    <section
      aria-label="Changes not saved"
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-ink bg-base-200 px-4 py-2"
    >
      <strong className="font-semibold">{countOf(cells, 'cell')} changed</strong>
      {effect ? (
        <>
          <span title="of the items changed, at all places">
            needs {moved(String(effect.needs.before), String(effect.needs.after))}
          </span>
          <span>
            tied up at max{' '}
            {moved(format.money(effect.tied.before, currency), format.money(effect.tied.after, currency))}
            {effect.unpriced > 0 && (
              <span className="second"> without {countOf(effect.unpriced, 'item')} of unknown price</span>
            )}
          </span>
        </>
      ) : (
        <span className="second">reckoning what it does …</span>
      )}
      <span className="ml-auto flex items-center gap-3">
        {props.sentence && (
          <span className="fault" role="alert">
            {props.sentence}
          </span>
        )}
        {wrong > 0 && <span className="font-semibold text-stop">{countOf(wrong, 'fault')}</span>}
        <button
          type="button"
          className="btn btn-outline"
          disabled={!props.canGoBack || props.busy}
          onClick={props.onBack}
        >
          Undo
        </button>
        <button
          type="button"
          className="btn btn-primary"
          aria-keyshortcuts="Control+S Meta+S"
          title="Ctrl/⌘ S"
          disabled={props.busy || wrong === drafts.size}
          onClick={props.onSave}
        >
          {wrong > 0 ? 'Save what is right' : 'Save'}
        </button>
      </span>
    </section>
  );
}
