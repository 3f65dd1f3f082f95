'use client';

import { useRouter } from 'next/navigation';
import type { SetupRecords } from '@/services/setup/readSetup';
import { useCommand } from '../command/use-command.client';
import { ListBar, WholeList } from '../frame/list';
import { RecordTable } from '../records/record-table.client';

const words: Readonly<Record<string, { readonly one: string; readonly empty: string }>> = {
  locations: { one: 'location', empty: 'No place yet: a shop or a warehouse comes first.' },
  holidays: { one: 'holiday', empty: 'No holiday is on file: every working day counts.' },
  categories: { one: 'category', empty: 'No category yet; items that are brought make theirs.' },
  'policy-defaults': {
    one: 'default',
    empty: 'Nothing is said for the company or a category: each item says its own policy.',
  },
  charges: { one: 'charge', empty: 'No charge that any order may take. Charges of a supplier stand with it.' },
  budgets: { one: 'budget', empty: 'No budget is set: what is ordered is not compared with anything.' },
  'job-materials': { one: 'material of a job', empty: 'No job of ours needs anything.' },
  'tax-rates': { one: 'tax rate', empty: 'No tax rate is on file: orders are reckoned without tax.' },
  'duty-rates': { one: 'duty rate', empty: 'No duty rate is on file.' },
  rates: { one: 'exchange rate', empty: 'No rate is on file: what is bought in another currency can’t be valued.' },
  'shipping-ways': { one: 'shipping way', empty: 'No way is on file, own pick-up neither.' },
  reasons: { one: 'reason', empty: 'No reason is on file; without one nothing can be put right.' },
  'pack-patterns': {
    one: 'pack of a pattern',
    empty: 'No pattern yet. A pattern is taken by marked items in the list of items.',
  },
};

/** A page of Setup: lists of records, each to be changed in place and brought or taken out as a spreadsheet. */
export function SetupRecordsPage({ records }: { records: SetupRecords }) {
  const [first] = records.views;
  return (
    <WholeList>
      <ListBar title={first?.title ?? ''} about={first?.about}>
        {records.list === 'rates' && <FetchRates there={records.rateFile} />}
      </ListBar>
      <div className="pb-10">
        {records.views.map((view) => (
          <RecordTable
            key={view.sheet}
            view={view}
            one={words[view.sheet]?.one ?? 'record'}
            empty={words[view.sheet]?.empty ?? 'Nothing yet.'}
            aside={
              view.may &&
              (['csv', 'xlsx'] as const).map((as) => (
                <a
                  key={as}
                  className="link"
                  href={`/api/sheets/${view.sheet}/records?as=${as}`}
                  aria-label={`${view.title} as ${as.toUpperCase()}`}
                  download
                >
                  {as.toUpperCase()}
                </a>
              ))
            }
          />
        ))}
      </div>
    </WholeList>
  );
}

/** Brings the file of rates as a spreadsheet: what it says is shown before it counts. */
function FetchRates({ there }: { there: boolean }) {
  const { busy, sentence, run } = useCommand();
  const router = useRouter();
  const fetchThem = async () => {
    const outcome = await run('start-job', { kind: 'fetch-rates' }, { refresh: false });
    if (outcome.ok) router.push('/sheets');
  };
  return (
    <>
      <button
        type="button"
        className="btn btn-outline ml-auto"
        disabled={busy || !there}
        title={there ? undefined : 'No rate file is named (VORRAT_RATES_URL)'}
        onClick={fetchThem}
      >
        Fetch the rate file
      </button>
      {!there && <span className="second">no rate file is named</span>}
      {sentence && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
    </>
  );
}
