import Papa from 'papaparse';
import { err, ok, type Result } from '@/core/result';
import { type FileFault, limits } from './fault';

export type Encoding = 'utf-8' | 'windows-1252' | 'utf-16le';
export type Separator = ',' | ';' | '\t' | '|';
/** How the text of a CSV file is written (RFC 4180, with the separators met in practice). */
export type CsvShape = { readonly encoding: Encoding; readonly bom: boolean; readonly separator: Separator };

type Chunks = () => AsyncIterable<Uint8Array>;

/** Looks at a whole file once: its encoding (UTF-8 if it is valid as that, else Windows-1252; UTF-16 by its mark), its
 *  separator (the one that parts the first lines into the most equal columns), and that no row runs on without end.
 *  Errors: empty, binary, row_too_long (a quote that is never closed).
 *  Source: RFC 4180; WHATWG Encoding Standard. */
export async function csvShape(chunks: Chunks): Promise<Result<CsvShape, FileFault>> {
  let encoding: Encoding = 'utf-8';
  let bom = false;
  let bytes = 0;
  let head = Buffer.alloc(0);
  const strict = new TextDecoder('utf-8', { fatal: true });
  let valid = true;
  for await (const chunk of chunks()) {
    if (bytes < 3) {
      head = Buffer.concat([head, chunk.subarray(0, 3)]).subarray(0, 3);
      if (head[0] === 0xff && head[1] === 0xfe) [encoding, bom] = ['utf-16le', true];
      else bom = head.equals(Buffer.from([0xef, 0xbb, 0xbf]));
    }
    bytes += chunk.length;
    if (encoding === 'utf-16le') break;
    if (chunk.includes(0)) return err({ kind: 'binary' });
    if (valid) valid = decodes(strict, chunk);
  }
  if (bytes === 0) return err({ kind: 'empty' });
  if (encoding === 'utf-8' && !(valid && decodes(strict, null))) encoding = 'windows-1252';
  const separator = separatorOf(await firstText(chunks, encoding));
  const shape = { encoding, bom, separator };
  const long = await longRow(chunks, shape);
  return long === null ? ok(shape) : err({ kind: 'row_too_long', row: long });
}

function decodes(decoder: TextDecoder, chunk: Uint8Array | null): boolean {
  try {
    decoder.decode(chunk ?? undefined, { stream: chunk !== null });
    return true;
  } catch {
    return false;
  }
}

/** The text of a file, piece by piece, without its byte order mark. */
async function* textOf(chunks: Chunks, encoding: Encoding): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  for await (const chunk of chunks()) yield decoder.decode(chunk, { stream: true });
  yield decoder.decode();
}

async function firstText(chunks: Chunks, encoding: Encoding): Promise<string> {
  let text = '';
  for await (const piece of textOf(chunks, encoding)) {
    text += piece;
    if (text.length > 64_000) break;
  }
  return text;
}

const separators: readonly Separator[] = [';', '\t', ',', '|'];

/** The separator whose count outside quotes is the same on the most of the first lines, and not none. */
function separatorOf(text: string): Separator {
  const lines = text
    .replace(/"[^"]*"/g, '')
    .split(/\r\n|\n|\r/)
    .filter((l) => l.trim() !== '')
    .slice(0, 40);
  const scored = separators.map((separator) => {
    const counts = lines.map((l) => l.split(separator).length - 1);
    const heading = counts[0] ?? 0;
    const alike = counts.filter((c) => c === heading).length;
    return { separator, score: heading === 0 ? 0 : alike * 1000 + Math.min(heading, 200) };
  });
  scored.sort((a, b) => b.score - a.score);
  return (scored[0]?.score ?? 0) > 0 ? (scored[0]?.separator as Separator) : ',';
}

/** The number of a row that runs on beyond all measure; null when there is none. */
async function longRow(chunks: Chunks, { encoding, separator }: CsvShape): Promise<number | null> {
  let [row, length, quoted, atStart, closing] = [1, 0, false, true, false];
  for await (const text of textOf(chunks, encoding)) {
    for (let i = 0; i < text.length; i += 1) {
      const c = text[i] as string;
      if (quoted) {
        if (c === '"') {
          quoted = false;
          closing = true;
        }
      } else if (c === '\n' || c === '\r') {
        if (length > 0 || c === '\n') row += 1;
        length = -1;
        [atStart, closing] = [true, false];
      } else if (c === '"' && (atStart || closing)) {
        quoted = true;
        [atStart, closing] = [false, false];
      } else {
        atStart = c === separator;
        closing = false;
      }
      length += 1;
      if (length > limits.rowLength) return row;
    }
  }
  return null;
}

/** The rows of a CSV file, in order, as they stand; some at a time, as the file is read piece by piece. Lines end in LF, CRLF
 *  or, where the first of them does, in CR alone. */
export async function* csvRows(chunks: Chunks, shape: CsvShape): AsyncGenerator<string[][]> {
  let parser: Papa.Parser | null = null;
  let rest = '';
  let first = true;
  const rowsIn = (text: string, last: boolean): string[][] => {
    // Too little to tell how lines end.
    if (!parser && !last && !/\n|\r./s.test(text)) {
      rest = text;
      return [];
    }
    const newline = parser || text.includes('\n') ? '\n' : '\r';
    parser ??= new Papa.Parser({ delimiter: shape.separator, newline } as never);
    // What is not ended yet waits for the next piece.
    const { data, meta } = parser.parse(text, 0, !last) as { data: string[][]; meta: { cursor: number } };
    rest = last ? '' : text.slice(meta.cursor);
    const [head] = data;
    if (first && head?.[0]?.startsWith('\ufeff')) head[0] = head[0].slice(1);
    if (data.length > 0) first = false;
    for (const row of data) {
      const end = row[row.length - 1];
      if (end?.endsWith('\r')) row[row.length - 1] = end.slice(0, -1);
    }
    return data;
  };
  for await (const text of textOf(chunks, shape.encoding)) yield rowsIn(rest + text, false);
  if (rest !== '') yield rowsIn(rest, true);
}

/** Rows as a CSV file: UTF-8 with byte order mark (so that spreadsheets take it for that), comma, CRLF. */
export const writeCsv = (rows: readonly (readonly string[])[], first = true): string =>
  `${first ? '\ufeff' : ''}${Papa.unparse(rows as string[][], { newline: '\r\n' })}\r\n`;
