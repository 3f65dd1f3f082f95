'use client';

import Link from 'next/link';
import { useCallback, useEffect, useState } from 'react';
import type { ImportDetail } from '@/services/sheets/readImports';
import { useCommand } from '../command/use-command.client';
import type { Format } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { ProgressBar } from '../frame/progress-bar';
import { cellSentence, fileSentence } from './fault-sentences';
import { MapColumns } from './map-columns.client';
import { Preview, type RowState } from './preview.client';
import { isBusy, stateWords } from './words';

/** Reads an import again while the worker is at it, and when rows of another state are to be shown. */
function useImport(first: ImportDetail) {
  const [detail, setDetail] = useState(first);
  const { id } = first.import;
  const read = useCallback(
    async (rows: RowState | null) => {
      const response = await fetch(`/api/reads/import?id=${id}&state=${rows ?? ''}`).catch(() => null);
      if (response?.ok) setDetail(((await response.json()) as { value: ImportDetail }).value);
    },
    [id],
  );
  const busy = isBusy(detail.import.state);
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => read(null), 500);
    return () => clearInterval(timer);
  }, [busy, read]);
  return { detail, read };
}

/** One spreadsheet on its way in: looked at, mapped, checked, previewed, written. */
export function ImportPage({ first }: { first: ImportDetail }) {
  const format = useFormat();
  const { detail, read } = useImport(first);
  const { busy, sentence, run } = useCommand();
  const [remap, setRemap] = useState(false);
  const { import: i, reading } = detail;
  const act = async (name: string, more: object = {}) => {
    const outcome = await run(name, { importId: i.id, version: i.version, ...more }, { refresh: false });
    if (outcome.ok) setRemap(false);
    await read(null);
  };
  const mapping =
    reading !== null && (i.state === 'to_map' || (remap && (i.state === 'checked' || i.state === 'refused')));
  const bar = (
    <ListBar title={i.title} about={`${i.fileName} · ${stateWords[i.state]}`}>
      <Link className="link ml-auto" href="/sheets">
        All spreadsheets
      </Link>
    </ListBar>
  );
  const alert = sentence && (
    <p className="fault px-4 py-2" role="alert">
      {sentence}
    </p>
  );
  if (mapping && reading) {
    return (
      <MapColumns
        key={i.version}
        detail={detail}
        reading={reading}
        head={bar}
        fault={sentence}
        busy={busy}
        onCheck={(said) => act('map-sheet', said)}
        onCancel={() => act('cancel-sheet')}
      />
    );
  }
  if (i.state === 'checked' || i.state === 'applied' || (i.state === 'refused' && reading)) {
    return (
      <Preview
        detail={detail}
        head={bar}
        fault={sentence || whyRefused(detail, format)}
        busy={busy}
        onShow={read}
        onApply={() => act('apply-sheet')}
        onCancel={() => act('cancel-sheet')}
        onRemap={() => setRemap(true)}
      />
    );
  }
  return (
    <WholeList>
      {bar}
      {alert}
      <div className="max-w-xl px-4 py-6">
        {isBusy(i.state) ? (
          <Progress detail={detail} busy={busy} onCancel={() => act('cancel-sheet')} />
        ) : (
          <p className={i.state === 'refused' ? 'fault' : ''} role="status">
            {i.state === 'refused' ? whyRefused(detail, format) : 'This file was let go. Nothing was changed.'}
          </p>
        )}
      </div>
    </WholeList>
  );
}

function whyRefused({ refusal, columns }: ImportDetail, format: Format): string {
  if (!refusal) return '';
  if ('file' in refusal) return fileSentence(refusal.file as Parameters<typeof fileSentence>[0]);
  const title = (key: string) => columns.find((c) => c.key === key)?.title ?? key;
  if (refusal.kind === 'changed_since_preview') {
    const rows = refusal.rows.slice(0, 8).join(', ');
    return `Nothing was written: what rows ${rows}${refusal.rows.length > 8 ? ' and more' : ''} are about has changed since it was checked. Check the file again.`;
  }
  if (refusal.kind === 'faulty_whole')
    return `Nothing was written. ${title(refusal.fault.column)}: ${cellSentence(refusal.fault, title, format)}`;
  return '';
}

const doing = {
  uploading: 'Sending the file',
  reading: 'Looking at the file',
  checking: 'Checking the rows against what is on file',
  applying: 'Writing, all rows or none',
} as const;

function Progress({ detail, busy, onCancel }: { detail: ImportDetail; busy: boolean; onCancel: () => void }) {
  const format = useFormat();
  const { progress, import: i } = detail;
  const total = progress?.total ?? null;
  const share = total ? Math.min(1, (progress?.done ?? 0) / total) : 0;
  const name = doing[i.state as keyof typeof doing];
  return (
    <div className="grid gap-3">
      <p role="status">{name}</p>
      <ProgressBar name={name} share={share} className="block h-[7px] w-full" />
      <p className="second">
        {total === null
          ? ''
          : `${format.quantity((progress?.done ?? 0) * 1e6)} of ${format.quantity(total * 1e6)} rows`}
      </p>
      {progress?.failed && (
        <p className="fault" role="alert">
          This failed several times and was given up; nothing was written. Let the file go and bring it again; if it
          fails again, the log of the server says why.
        </p>
      )}
      {(i.state !== 'applying' || progress?.failed) && (
        <div>
          <button type="button" className="btn btn-outline" disabled={busy} onClick={onCancel}>
            Let it go
          </button>
        </div>
      )}
    </div>
  );
}
