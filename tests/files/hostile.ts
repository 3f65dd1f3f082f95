import { deflateRawSync } from 'node:zlib';
import { seeded } from '../../scripts/demoData/random';

type Random = () => number;
const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)] as T;
const many = (random: Random, most: number) => Math.floor(random() * most);

const headings = [
  'Number,Name,Unit,Sale price,Successor\n',
  'number;name;unit;sale price\n',
  'Number\tName\tUnit\n',
  '\ufeffNumber,Name,Unit\r\n',
  'Number,Number,Number\n',
  ',,,,\n',
  '"Number","Na""me","Unit"\n',
  '# Number,Name,Unit\n',
];
const cells = [
  // Some that are as they should be, so that some rows get through.
  ...['Q7', 'abc', 'C62', 'C62', 'C62', '12', '3.5'],
  ...[
    '',
    ' ',
    '0',
    '-1',
    '1e309',
    'NaN',
    '1.234',
    '1,234',
    '1.2.3',
    '=1+1',
    '=HYPERLINK("http://x.example","a")',
    '@SUM(A1)',
  ],
  ...[
    "'=1",
    '+1',
    '-',
    '"',
    '""',
    '"""',
    '\u0000',
    '\u0007',
    '\ufffd',
    '\u202eabc',
    '💥',
    'C62',
    'XXX',
    '10412-07',
    'null',
    '__proto__',
  ],
  ...[
    "'; DROP TABLE item; --",
    "\\'); DELETE FROM item; --",
    '{{7*7}}',
    '<script>alert(1)</script>',
    '../../etc/passwd',
    '%s%n',
  ],
  ...[
    'a'.repeat(40_000),
    '9'.repeat(400),
    '\\N',
    '\\',
    '\t',
    'constructor',
    '2026-02-30',
    '99.99.9999',
    '1'.repeat(20),
  ],
];

/** A CSV file made of what goes wrong in CSV files. */
function oddCsv(random: Random): Buffer {
  let text = pick(random, headings);
  const separator = pick(random, [',', ';', '\t', ',', ',']);
  const rows = many(random, 12);
  for (let r = 0; r < rows; r += 1) {
    const row = Array.from({ length: many(random, random() < 0.05 ? 300 : 8) }, () => {
      const cell = pick(random, cells);
      return random() < 0.3 ? `"${random() < 0.8 ? cell.replaceAll('"', '""') : cell}"` : cell;
    });
    text += row.join(separator) + pick(random, ['\n', '\r\n', '\r', '\n', '']);
  }
  return Buffer.from(text, pick(random, ['utf8', 'utf8', 'utf8', 'latin1', 'utf16le'] as const));
}

/** One entry of a ZIP file and its line in the directory; the sizes may be lies. */
function entry(name: string, content: Buffer, at: number, lie: number): { local: Buffer; central: Buffer } {
  const packed = deflateRawSync(content);
  const local = Buffer.alloc(30 + name.length);
  local.writeUInt32LE(0x04034b50, 0);
  local.writeUInt16LE(20, 4);
  local.writeUInt16LE(8, 8);
  local.writeUInt32LE(packed.length, 18);
  local.writeUInt32LE(lie || content.length, 22);
  local.writeUInt16LE(name.length, 26);
  local.write(name, 30);
  const central = Buffer.alloc(46 + name.length);
  central.writeUInt32LE(0x02014b50, 0);
  central.writeUInt16LE(20, 6);
  central.writeUInt16LE(8, 10);
  central.writeUInt32LE(packed.length, 20);
  central.writeUInt32LE(lie || content.length, 24);
  central.writeUInt16LE(name.length, 28);
  central.writeUInt32LE(at, 42);
  central.write(name, 46);
  return { local: Buffer.concat([local, packed]), central };
}

export function zip(files: readonly (readonly [string, Buffer])[], lie = 0): Buffer {
  const locals: Buffer[] = [];
  const centrals: Buffer[] = [];
  let at = 0;
  for (const [name, content] of files) {
    const { local, central } = entry(name, content, at, lie);
    locals.push(local);
    centrals.push(central);
    at += local.length;
  }
  const directory = Buffer.concat(centrals);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(files.length, 8);
  end.writeUInt16LE(files.length, 10);
  end.writeUInt32LE(directory.length, 12);
  end.writeUInt32LE(at, 16);
  return Buffer.concat([...locals, directory, end]);
}

const xml = '<?xml version="1.0" encoding="UTF-8"?>';
const workbookParts = (sheet: string): [string, Buffer][] => [
  [
    '[Content_Types].xml',
    Buffer.from(
      `${xml}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>`,
    ),
  ],
  [
    'xl/workbook.xml',
    Buffer.from(
      `${xml}<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="A" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    ),
  ],
  [
    'xl/_rels/workbook.xml.rels',
    Buffer.from(
      `${xml}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    ),
  ],
  ['xl/worksheets/sheet1.xml', Buffer.from(sheet)],
];
const inline = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const sheetOf = (rows: string) =>
  `${xml}<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows}</sheetData></worksheet>`;
const goodRows = `<row r="1">${inline('A1', 'Number')}${inline('B1', 'Name')}${inline('C1', 'Unit')}</row>`;

/** Workbooks that are bombs, lies or rubbish. */
const badWorkbooks: readonly ((random: Random) => Buffer)[] = [
  () => zip(workbookParts(sheetOf(`${goodRows}<row r="2"><c r="A2"><f>1+1</f><v>2</v></c></row>`))),
  () => zip(workbookParts(sheetOf(`<row r="1"><c r="XFD1"><v>1</v></c></row>`))),
  () => zip(workbookParts(sheetOf(`<row r="1048576"><c r="A1048576"><v>1</v></c></row>`))),
  () =>
    zip(workbookParts(`${xml}<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>${sheetOf('').slice(xml.length)}`)),
  () => zip([...workbookParts(sheetOf(goodRows)), ['xl/media/bomb.xml', Buffer.alloc(210 * 1024 * 1024, 0x20)]]),
  () => zip(workbookParts(sheetOf(goodRows)), 12),
  () => zip(workbookParts('<worksheet><sheetData><row><c><v>1</v>')),
  () => zip([['hello.txt', Buffer.from('hello')]]),
  (random) => {
    const file = zip(workbookParts(sheetOf(goodRows)));
    for (let n = 0; n < 12; n += 1) file[many(random, file.length)] = many(random, 256);
    return file;
  },
  (random) => {
    const file = zip(workbookParts(sheetOf(goodRows)));
    return file.subarray(0, many(random, file.length));
  },
  () => Buffer.concat([Buffer.from('PK\u0003\u0004'), Buffer.alloc(2000, 0xff)]),
];

/** The n-th hostile file: CSV that is wrong in every way, workbooks that are bombs or broken, noise. The bomb of 210 MB is
 *  costly to make, so it comes once. */
export function hostileFile(n: number): Buffer {
  const random = seeded(n * 7919 + 1);
  const kind = n % 20;
  if (kind === 0) {
    const which = (n / 20) % badWorkbooks.length;
    const make = badWorkbooks[which === 4 && n > 100 ? 8 : which];
    return (make as (random: Random) => Buffer)(random);
  }
  if (kind === 1) return Buffer.from(Array.from({ length: many(random, 3000) }, () => many(random, 256)));
  if (kind === 2) {
    const file = oddCsv(random);
    for (let k = 0; k < 5 && file.length > 0; k += 1) file[many(random, file.length)] = many(random, 256);
    return file;
  }
  return oddCsv(random);
}
