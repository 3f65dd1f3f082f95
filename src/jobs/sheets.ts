import type { CsvShape } from '@/formats/csv';
import { dataRows, openSheet, surveySheet } from '@/formats/readSheet';
import { measureAllDemand } from '@/services/demand/measureDemand';
import type { Memory, RawRow } from '@/services/sheets/checkRows';
import { fileOf } from '@/services/sheets/importFile';
import {
  checkStep,
  closeStaging,
  forgetRowsAfter,
  importIn,
  type KeptReading,
  keepReading,
  refuseFile,
  refuseWhole,
  settingOf,
  stageRows,
} from '@/services/sheets/steps';
import { writeStaged } from '@/services/sheets/writeStaged';
import type { Handler } from './handler';

/** Rows checked and staged in one step. */
const ROWS_A_STEP = 2000;
/** Rows looked at to find out how numbers and dates are written. */
const SAMPLE = 2000;

const idOf = (input: unknown) => (input as { importId: number }).importId;

/** Looks at a file that was brought: what it is, its headings, how it is likely to be read. */
export const readSheet: Handler = async (deps, { input, step }) => {
  const importId = idOf(input);
  const here = await importIn(deps, importId, 'reading');
  if (!here) return;
  await step({ done: 0, total: null, resumeAt: null });
  const opened = await openSheet(fileOf(deps, importId));
  if (!opened.ok) return refuseFile(deps, importId, opened.error);
  const survey = await surveySheet(opened.value, SAMPLE);
  if (!survey.ok) return refuseFile(deps, importId, survey.error);
  const { format, csv, formulas } = opened.value;
  await keepReading(deps, importId, here.kind, { format, csv, formulas, ...survey.value });
};

/** Checks all rows of a file against the books and stages them, step by step; after a crash it goes on behind the last
 *  step that was noted. */
export const checkSheet: Handler = async (deps, { input, resumeAt, step }) => {
  const importId = idOf(input);
  const here = await importIn(deps, importId, 'checking');
  if (!here) return;
  const from = (resumeAt ?? { rowNo: 0, done: 0 }) as { rowNo: number; done: number };
  await forgetRowsAfter(deps, importId, from.rowNo);
  const { found } = JSON.parse(here.row.reading ?? '{}') as KeptReading;
  const opened = await openSheet(fileOf(deps, importId), found.csv as CsvShape | null);
  if (!opened.ok) return refuseFile(deps, importId, opened.error);
  const total = found.rows;
  const setting = await settingOf(deps, here.row.createdBy);
  const memory: Memory = new Map();
  let { done, rowNo } = from;
  let chunk: RawRow[] = [];
  // While some rows are being kept, the next ones are already being checked.
  let keeping = Promise.resolve();
  let naming = from.done > 0;
  const stage = async () => {
    const rows = chunk;
    chunk = [];
    const checked = await checkStep(deps, here, rows, setting, memory);
    naming ||= checked.some((c) => c.own.length > 0);
    await keeping;
    keeping = (async () => {
      await stageRows(deps, here, rows, checked);
      done += rows.length;
      rowNo = rows.at(-1)?.rowNo ?? rowNo;
      await step({ done, total, resumeAt: { rowNo, done } });
    })();
    // A fault comes out where it is awaited.
    keeping.catch(() => undefined);
  };
  await step({ done, total, resumeAt: { rowNo, done } });
  for await (const some of dataRows(opened.value)) {
    for (const row of some) {
      if (row.rowNo <= from.rowNo) continue;
      chunk.push(row);
      if (chunk.length === ROWS_A_STEP) await stage();
    }
  }
  if (chunk.length > 0) await stage();
  await keeping;
  await closeStaging(deps, importId, here.kind, naming);
};

/** Writes what was previewed, in one transaction. */
export const writeSheet: Handler = async (deps, { input, step }) => {
  const importId = idOf(input);
  const here = await importIn(deps, importId, 'applying');
  if (!here) return;
  const total = here.row.newRows + here.row.changedRows;
  const setting = await settingOf(deps, here.row.createdBy);
  await step({ done: 0, total, resumeAt: null });
  const written = await writeStaged(deps, importId, here.kind, setting, (done) =>
    step({ done, total, resumeAt: null }),
  );
  if (written.ok && here.kind.name === 'demand') await measureAllDemand(deps, true);
  if (!written.ok && written.error.kind !== 'cancelled') await refuseWhole(deps, importId, written.error);
};
