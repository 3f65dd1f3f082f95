import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { err, ok, type Result } from '@/core/result';
import type { Cell } from '@/core/sheets';
import { type FileFault, limits } from './fault';
import { unzip } from './zip';

const SECONDS = 60;

export type Workbook = { readonly rows: readonly (readonly Cell[])[]; readonly formulas: number };

/** The first sheet of an XLSX workbook (ECMA-376). Numbers come as numbers, dates as ISO text; of a formula the value that
 *  the workbook was saved with, and how many there are is said. Read in a thread that ends after a minute.
 *  Errors: old_format, encrypted, damaged, entities, unpacks_too_large, too_many_columns, too_many_rows, took_too_long. */
export async function readXlsx(file: Buffer): Promise<Result<Workbook, FileFault>> {
  // The container of XLS and of an encrypted workbook.
  if (file.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0]))) return err({ kind: 'old_format' });
  const unpacked = unzip(file);
  if (!unpacked.ok) return unpacked;
  let formulas = 0;
  for (const { name, content } of unpacked.value) {
    if (!/\.(xml|rels)$/i.test(name)) continue;
    const text = content.toString('latin1');
    if (/<!(DOCTYPE|ENTITY)/i.test(text)) return err({ kind: 'entities' });
    if (/worksheets\/[^/]+\.xml$/i.test(name)) {
      formulas += text.match(/<f[ >/]/g)?.length ?? 0;
      const beyond = farCell(text);
      if (beyond) return err(beyond);
    }
  }
  if (!unpacked.value.some((e) => /workbook\.xml$/i.test(e.name))) return err({ kind: 'damaged' });
  const read = await inThread(file);
  return read.ok ? ok({ rows: read.value, formulas }) : read;
}

/** A cell far out makes the reader fill everything up to it: addresses are looked at first. */
function farCell(sheet: string): FileFault | null {
  for (const m of sheet.matchAll(/<(?:c|row)\b[^>]*?\br="([A-Z]*)(\d+)"/g)) {
    const column = [...(m[1] as string)].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0);
    if (column > limits.columns) return { kind: 'too_many_columns', columns: column, most: limits.columns };
    if ((m[2] as string).length > 7 || Number(m[2]) > limits.rows) return { kind: 'too_many_rows', most: limits.rows };
  }
  return null;
}

function inThread(content: Buffer): Promise<Result<Cell[][], FileFault>> {
  return new Promise((resolve) => {
    const thread = new Worker(join(__dirname, 'xlsxThread.mjs'), {
      workerData: { content },
      resourceLimits: { maxOldGenerationSizeMb: 1500 },
      execArgv: [],
    });
    const late = setTimeout(() => end(err({ kind: 'took_too_long' })), SECONDS * 1000);
    const end = (result: Result<Cell[][], FileFault>) => {
      clearTimeout(late);
      resolve(result);
      void thread.terminate();
    };
    thread.once('message', (m: { rows?: Cell[][] }) => end(m.rows ? ok(m.rows) : err({ kind: 'damaged' })));
    thread.once('error', () => end(err({ kind: 'damaged' })));
    thread.once('exit', () => end(err({ kind: 'damaged' })));
  });
}
