'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type DragEvent, useRef, useState } from 'react';
import type { HandlerFailure } from '@/services/failure';
import type { ImportView, TemplateView } from '@/services/sheets/readImports';
import { useFormat } from '../format-context.client';
import { ListBar } from '../frame/list';
import { ListAndPanel } from '../frame/states';
import { failureSentence } from '../sentences';
import { stateWords } from './words';

/** Sends a file and says where it went, or why not. */
async function send(
  kind: string,
  file: File,
): Promise<{ importId: number } | { failure: HandlerFailure | { kind: 'unreachable' } }> {
  const response = await fetch(`/api/sheets/${kind}?name=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    body: file,
  }).catch(() => null);
  const body = (await response?.json().catch(() => null)) as
    | { ok: true; value: { importId: number } }
    | { ok: false; failure: HandlerFailure }
    | null;
  if (body?.ok) return body.value;
  return { failure: body?.failure ?? { kind: 'unreachable' } };
}

/** What can be brought as a spreadsheet and taken out as one, in the order in which a new company brings it. */
export function SheetsPage({
  templates,
  imports,
}: {
  templates: readonly TemplateView[];
  imports: readonly ImportView[];
}) {
  const format = useFormat();
  const router = useRouter();
  const [busy, setBusy] = useState<string | null>(null);
  const [fault, setFault] = useState<{ kind: string; sentence: string } | null>(null);
  const bring = async (kind: string, file: File | undefined) => {
    if (!file || busy) return;
    setBusy(kind);
    setFault(null);
    const sent = await send(kind, file);
    if ('importId' in sent) return router.push(`/sheets/${sent.importId}`);
    setBusy(null);
    setFault({ kind, sentence: failureSentence(sent.failure, format) });
  };
  return (
    <ListAndPanel label="Brought lately" panel={<Lately imports={imports} />}>
      <ListBar
        title="Spreadsheets"
        about="fill in a template or bring a file of your own; nothing changes before you have seen what would"
      />
      <table className="sheet">
        <thead>
          <tr>
            <th>What</th>
            <th className="w-36">Empty template</th>
            <th className="w-36">What is on file</th>
            <th className="w-32">
              <span className="sr-only">Bring</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {templates.map((t) => (
            <TemplateRow
              key={t.name}
              template={t}
              busy={busy === t.name}
              fault={fault?.kind === t.name ? fault.sentence : ''}
              onFile={(file) => bring(t.name, file)}
            />
          ))}
        </tbody>
      </table>
    </ListAndPanel>
  );
}

const files = [
  ['csv', 'CSV'],
  ['xlsx', 'XLSX'],
] as const;

function TemplateRow({
  template: t,
  busy,
  fault,
  onFile,
}: {
  template: TemplateView;
  busy: boolean;
  fault: string;
  onFile: (file: File | undefined) => void;
}) {
  const [over, setOver] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    if (t.may) onFile(e.dataTransfer.files[0]);
  };
  const links = (what: string, label: string) => (
    <span className="flex gap-3">
      {files.map(([as, name]) => (
        <a
          key={as}
          className="link"
          href={`/api/sheets/${t.name}/${what}?as=${as}`}
          aria-label={`${t.title}: ${label} as ${name}`}
          download
        >
          {name}
        </a>
      ))}
    </span>
  );
  return (
    <tr
      className="two"
      data-current={over}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(t.may);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <td>
        <span className="name block">{t.title}</span>
        <span className="second max-sm:hidden">{fault === '' ? t.about : ''}</span>
        {fault !== '' && (
          <span className="fault" role="alert">
            {fault}
          </span>
        )}
      </td>
      <td>{t.may ? links('template', 'template') : <span className="second">–</span>}</td>
      <td>{t.may ? links('records', 'what is on file') : <span className="second">–</span>}</td>
      <td className="figure">
        {t.may ? (
          <>
            <button type="button" className="btn btn-outline" disabled={busy} onClick={() => chooser.current?.click()}>
              {busy ? 'Sending' : 'Bring a file'}
            </button>
            <input
              ref={chooser}
              type="file"
              hidden
              aria-label={`File of ${t.title}`}
              accept=".csv,.txt,.tsv,.xlsx,text/csv"
              onChange={(e) => {
                onFile(e.target.files?.[0]);
                e.target.value = '';
              }}
            />
          </>
        ) : (
          <span className="second">not your role’s</span>
        )}
      </td>
    </tr>
  );
}

function Lately({ imports }: { imports: readonly ImportView[] }) {
  const format = useFormat();
  return (
    <section>
      <h2 className="head">Brought lately</h2>
      {imports.length === 0 && (
        <p className="second">
          Nothing yet. A new company begins with locations and suppliers, then items with their packs, sources and
          prices, opening stock, and policies.
        </p>
      )}
      <ul className="grid gap-2">
        {imports.map((i) => (
          <li key={i.id} className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-rule pb-2">
            <Link className="link font-semibold" href={`/sheets/${i.id}`} prefetch={false}>
              {i.title}
            </Link>
            <span className={i.state === 'refused' ? 'font-semibold text-stop' : 'second'}>{stateWords[i.state]}</span>
            <span className="second break-words">{i.fileName}</span>
            <span className="second text-right">
              {format.date(i.createdAt.slice(0, 10))}, {i.who}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
