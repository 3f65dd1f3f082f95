import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

/** The text of each page of a PDF, piece by piece as it is set, read by pdf.js. */
export function pdfText(pdf: Buffer): string[][] {
  const { stdout, stderr, status } = spawnSync(process.execPath, [join(__dirname, 'pdfText.mjs')], {
    input: pdf,
    maxBuffer: 64 << 20,
  });
  if (status !== 0) throw new Error(String(stderr));
  return JSON.parse(String(stdout)) as string[][];
}
