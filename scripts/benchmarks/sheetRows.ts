import { Readable } from 'node:stream';
import { seeded } from '../demoData/random';

const words = 'fen moor reed ash plum slate moss heron thistle bramble tallow linen merino cotton tweed'.split(' ');
const headings = [
  ...['Number', 'Name', 'Category', 'Unit', 'Called', 'Maker', 'Maker’s number', 'Weight kg', 'HS code', 'Origin'],
  ...['Standard cost', 'Sale price', 'Tax rate %', 'Note to the buyer'],
];

/** So many made-up items as the lines of a CSV file, heading first. */
export function* itemLines(rows: number): Generator<string> {
  const random = seeded(7);
  const word = () => words[Math.floor(random() * words.length)] as string;
  yield `${headings.join(',')}\n`;
  for (let n = 1; n <= rows; n += 1) {
    const cost = (0.5 + 20 * random()).toFixed(2);
    const cells = [
      `B${String(n).padStart(7, '0')}`,
      `"${word()} ${word()}, ${word()} ${n % 97}"`,
      ...['Bench', 'C62', 'piece', `${word()} mills`, `M-${n}`, (random() * 2).toFixed(3), '510910', 'GB'],
      ...[cost, (Number(cost) * 2.1).toFixed(2), '19', random() < 0.1 ? 'ask for samples' : ''],
    ];
    yield `${cells.join(',')}\n`;
  }
}

/** The file in pieces of about 64 kB, as it would come over the line. */
export async function* itemChunks(rows: number): AsyncGenerator<Uint8Array> {
  let text = '';
  for (const line of itemLines(rows)) {
    text += line;
    if (text.length > 65_536) {
      yield Buffer.from(text);
      text = '';
    }
  }
  yield Buffer.from(text);
}

export const itemStream = (rows: number): Readable =>
  Readable.from(
    (async function* () {
      for await (const chunk of itemChunks(rows)) yield Buffer.from(chunk);
    })(),
  );
