import Form from 'next/form';
import Link from 'next/link';
import type { ChangesView } from '@/services/people/readChanges';
import type { Format } from '../format';
import { AskedFields } from '../frame/asked-fields';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';
import { ChangeWords } from './change-words';

const areas = [
  ['', 'Everything'],
  ['catalogue', 'Items and suppliers'],
  ['policies', 'Policies'],
  ['needs', 'Needs and trays'],
  ['orders', 'Orders and receipts'],
  ['stock', 'Stock'],
  ['setup', 'Setup'],
  ['people', 'People'],
] as const;

const pages: Readonly<Record<string, string>> = {
  item: '/items/',
  policy: '/items/',
  supplier: '/suppliers/',
  order: '/orders/',
  import: '/sheets/',
  transfer: '/stock/transfers/',
};

type Asked = { area: string | null; userId: number | null; from: string; to: string; before: number };

/** Who did what when, before and after. */
export function ChangesPage({ view, asked, format }: { view: ChangesView; asked: Asked; format: Format }) {
  const { lines, next } = view;
  const query = (more: Record<string, string>) => {
    const all = { area: asked.area ?? '', who: String(asked.userId ?? ''), from: asked.from, to: asked.to, ...more };
    return `/setup/changes?${new URLSearchParams(Object.entries(all).filter(([, v]) => v !== ''))}`;
  };
  const time = (at: string) =>
    new Intl.DateTimeFormat(format.locale, { hour: '2-digit', minute: '2-digit', timeZone: view.timeZone }).format(
      Date.parse(`${at.replace(' ', 'T')}Z`),
    );
  const day = (at: string) =>
    new Intl.DateTimeFormat('sv-SE', { timeZone: view.timeZone }).format(Date.parse(`${at.replace(' ', 'T')}Z`));
  return (
    <WholeList>
      <ListBar title="Changes" about="who, what, when, before and after">
        <Form action="/setup/changes" className="ml-auto flex flex-wrap items-center gap-2">
          <select name="area" className="entry" defaultValue={asked.area ?? ''} aria-label="About">
            {areas.map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
          <AskedFields people={view.people} asked={asked} />
        </Form>
        <ExportLinks of="Changes" path={query({}).replace('/setup/changes', '/api/exports/changes')} />
      </ListBar>
      {lines.length === 0 ? (
        <Notice title="No such change">
          <Link className="link" href="/setup/changes">
            Show all changes
          </Link>
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th className="w-32">When</th>
              <th className="w-32">Who</th>
              <th className="w-1/4">About</th>
              <th>What</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((c) => (
              <tr key={c.id} className="one align-top">
                <td className="whitespace-nowrap">
                  {format.date(day(c.at))} {time(c.at)}
                </td>
                <td>{c.who || 'by itself'}</td>
                <td className="break-words">
                  <span className="second">{c.entity.replaceAll('_', ' ')}</span>{' '}
                  {pages[c.entity] ? (
                    <Link className="link" href={`${pages[c.entity]}${c.entityId}`} prefetch={false}>
                      {c.name ?? c.entityId}
                    </Link>
                  ) : (
                    c.name
                  )}
                </td>
                <td className="break-words">
                  <ChangeWords change={c} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="flex gap-4 px-4 py-3">
        {asked.before > 0 && (
          <Link className="link" href={query({})}>
            Newest
          </Link>
        )}
        {next !== null && (
          <Link className="link" href={query({ before: String(next) })}>
            Older
          </Link>
        )}
      </p>
    </WholeList>
  );
}
