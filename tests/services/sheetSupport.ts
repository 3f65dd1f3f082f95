import type { Actor } from '@/core/people';
import type { Conventions, Mapping } from '@/core/sheets';
import { limits } from '@/formats/fault';
import { recordsCsv } from '@/formats/writeSheet';
import { workOnce } from '@/jobs/worker';
import type { ListFile } from '@/services/lists/fileColumns';
import { applySheet } from '@/services/sheets/applySheet';
import { mapSheet } from '@/services/sheets/mapSheet';
import { type ImportDetail, readImport } from '@/services/sheets/readImports';
import { uploadSheet } from '@/services/sheets/uploadSheet';
import { type Books, must, otto, req } from './support';

/** The owner of a company founded in a test: its first user. */
export const boss: Actor = { ...otto, userId: 1 };

/** A list written to a file, as its text. */
export const csvOf = async (file: ListFile) => {
  let text = '';
  for await (const piece of recordsCsv(file.columns, file.rows)) text += piece;
  return text;
};

const asChunks = async function* (content: Buffer, size = 64 * 1024) {
  for (let from = 0; from < content.length; from += size) yield content.subarray(from, from + size);
};

export const detail = async (
  books: Books,
  importId: number,
  state: 'new' | 'changed' | 'unchanged' | 'wrong' = 'wrong',
) => must(await readImport(books.deps, boss, { importId, state, after: 0 }));

/** Lets the worker do what waits. */
export async function work(books: Books): Promise<void> {
  while (await workOnce({ id: 'sheets', deps: books.deps }));
}

/** Brings a file and has it looked at. */
export async function bring(
  books: Books,
  kind: string,
  content: string | Buffer,
  actor: Actor = boss,
): Promise<ImportDetail> {
  const buffer = typeof content === 'string' ? Buffer.from(content) : content;
  const file = { kind, name: `${kind}.csv`, mostMegabytes: limits.megabytes };
  const { importId } = must(await uploadSheet(books.deps, actor, file, asChunks(buffer)));
  await work(books);
  return detail(books, importId);
}

/** Brings a file and has it checked, read as proposed or as said. */
export async function preview(
  books: Books,
  kind: string,
  content: string | Buffer,
  said: Partial<Conventions> & { mapping?: Mapping } = {},
): Promise<ImportDetail> {
  const brought = await bring(books, kind, content);
  const { reading } = brought;
  if (!reading) return brought;
  const proposed = reading.proposed;
  must(
    await mapSheet(
      books.deps,
      boss,
      req({
        importId: brought.import.id,
        version: brought.import.version,
        mapping: said.mapping ?? proposed.mapping,
        decimal: said.decimal ?? proposed.decimal.mark,
        dates: said.dates ?? proposed.dates.order,
      }),
    ),
  );
  await work(books);
  return detail(books, brought.import.id);
}

/** Has what was previewed written. */
export async function apply(books: Books, previewed: ImportDetail): Promise<ImportDetail> {
  const { id: importId, version } = previewed.import;
  must(await applySheet(books.deps, boss, req({ importId, version })));
  await work(books);
  return detail(books, importId);
}

export const counts = (d: ImportDetail) => {
  const { newRows, changedRows, unchangedRows, wrongRows } = d.import;
  return [newRows, changedRows, unchangedRows, wrongRows];
};
