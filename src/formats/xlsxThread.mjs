import { parentPort, workerData } from 'node:worker_threads';
import { readSheet } from 'read-excel-file/node';

/** Reads the first sheet of a workbook in a thread of its own, which its starter ends when it takes too long. */
const plain = (cell) => {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date)
    return Number.isNaN(cell.getTime()) ? '' : cell.toISOString().replace(/T00:00:00\.000Z$/, '');
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
  return cell;
};

try {
  const rows = await readSheet(Buffer.from(workerData.content), { trim: false });
  parentPort.postMessage({ rows: rows.map((row) => row.map(plain)) });
} catch (e) {
  parentPort.postMessage({ fault: e instanceof Error ? e.message : String(e) });
}
