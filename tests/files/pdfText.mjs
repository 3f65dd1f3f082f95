// Reads a PDF on standard input; writes the text of its pages, line by line, as JSON.
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const pdf = await getDocument({ data: new Uint8Array(Buffer.concat(chunks)), verbosity: 0, useSystemFonts: false })
  .promise;
const pages = [];
for (let n = 1; n <= pdf.numPages; n++) {
  const { items } = await (await pdf.getPage(n)).getTextContent();
  pages.push(items.map((i) => i.str).filter((s) => s.trim() !== ''));
}
process.stdout.write(JSON.stringify(pages));
