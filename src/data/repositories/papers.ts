import { type NumberPattern, type PaperColumn, type PaperSetup, paperColumns, paperLanguages } from '@/core/purchase';
import type { Tx } from '../sql';

/** How orders are numbered: the pattern, and the first number of a month or year. */
export type Numbering = { readonly pattern: NumberPattern; readonly start: number };

export async function readNumbering(tx: Tx): Promise<Numbering> {
  const row = await tx.row<Numbering>(
    'SELECT order_number_pattern AS pattern, order_number_start AS start FROM company WHERE id = 1',
  );
  if (!row) throw new Error('the company is not set up');
  return row;
}

export const updateNumbering = (tx: Tx, n: Numbering) =>
  tx.run('UPDATE company SET order_number_pattern = :pattern, order_number_start = :start WHERE id = 1', n);

/** The last number that was drawn in a series; 0 = none. */
export const readLastNumber = async (tx: Tx, series: string): Promise<number> =>
  (
    await tx.row<{ last: number }>(
      "SELECT last_number AS last FROM number_counter WHERE pattern = 'PO' AND period = :series",
      { series },
    )
  )?.last ?? 0;

/** The next number of a series is this one; those between are left out. */
export const setNextNumber = (tx: Tx, series: string, next: number) =>
  tx.run(
    `INSERT INTO number_counter (pattern, period, last_number, skipped) VALUES ('PO', :series, :last, :last)
     ON DUPLICATE KEY UPDATE skipped = skipped + :last - last_number, last_number = :last`,
    { series, last: next - 1 },
  );

/** A number of a series that was drawn for nothing, because somebody had typed it. */
export const passOver = (tx: Tx, series: string) =>
  tx.run("UPDATE number_counter SET skipped = skipped + 1 WHERE pattern = 'PO' AND period = :series", { series });

/** How papers of orders are set up. */
export async function readPaperSetup(tx: Tx): Promise<PaperSetup> {
  const row = await tx.row<{ letterhead: string; foot: string; hides: string }>(
    'SELECT paper_letterhead AS letterhead, paper_foot AS foot, paper_hides AS hides FROM company WHERE id = 1',
  );
  const texts = await tx.rows<{ language: string; opening: string; closing: string }>(
    'SELECT language, opening, closing FROM paper_text',
  );
  const hides = (row?.hides ?? '').split(';').filter((h): h is PaperColumn => paperColumns.some((c) => c === h));
  const textOf = (language: string) => {
    const own = texts.find((t) => t.language === language);
    return { opening: own?.opening ?? '', closing: own?.closing ?? '' };
  };
  return {
    ...{ letterhead: row?.letterhead ?? '', foot: row?.foot ?? '', hides },
    texts: Object.fromEntries(paperLanguages.map((l) => [l, textOf(l)])) as PaperSetup['texts'],
  };
}

export async function updatePaperSetup(tx: Tx, { letterhead, foot, hides, texts }: PaperSetup): Promise<void> {
  await tx.run(
    'UPDATE company SET paper_letterhead = :letterhead, paper_foot = :foot, paper_hides = :hides WHERE id = 1',
    { letterhead, foot, hides: hides.join(';') },
  );
  await tx.insertMany(
    'INSERT INTO paper_text (language, opening, closing)',
    paperLanguages.map((l) => [l, texts[l].opening, texts[l].closing]),
    'ON DUPLICATE KEY UPDATE opening = VALUES(opening), closing = VALUES(closing)',
  );
}
