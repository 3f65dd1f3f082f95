import { orderPdf } from '@/formats/orderPdf';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editHead } from '@/services/purchase/editHead';
import { newOrder } from '@/services/purchase/newOrder';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { readOrder } from '@/services/purchase/readOrder';
import { readPapers, setPapers, type TypedPapers } from '@/services/setup/setPapers';
import { pdfText } from '../files/pdf';
import { type Books, freshBooks, mira, must, otto, req, violations } from './support';

let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const typedNow = async () => must(await readPapers(books.deps, otto)).typed;
const set = async (more: Partial<TypedPapers>) => {
  const was = await typedNow();
  return setPapers(books.deps, otto, req({ ...was, ...more, was }));
};
async function draft(): Promise<number> {
  const { orderId } = must(await newOrder(books.deps, mira, req({ supplierId: 1, locationId: 1, addressId: null })));
  const sign = { kind: 'non_stock' as const, description: 'Sign', quantity: '1', unit: '', price: '45' };
  must(await addOtherLine(books.deps, mira, req({ orderId, ...sign, locationId: 1 })));
  return orderId;
}
async function approved(): Promise<{ id: number; number: string }> {
  const id = await draft();
  const { version } = must(await readOrder(books.deps, mira, id)).head;
  return { id, number: must(await approveOrder(books.deps, otto, req({ orderId: id, version }))).number };
}

describe('numbers', () => {
  test('go on where they are; another pattern begins its own series at its start', async () => {
    const usual = await approved();
    expect(usual.number).toMatch(/^2611-\d{4}$/);
    must(await set({ pattern: 'PO-YYYY-#####', start: '500', next: '500' }));
    expect((await approved()).number).toBe('PO-2026-00500');
    expect((await approved()).number).toBe('PO-2026-00501');
    books.deps.setClock('2027-01-04T09:00:00Z');
    expect((await approved()).number).toBe('PO-2027-00500');
    // Back again the old series goes on.
    books.deps.setClock('2026-11-24T09:00:00Z');
    must(await set({ pattern: 'YYMM-####' }));
    const again = (await approved()).number;
    expect(Number(again.slice(5))).toBe(Number(usual.number.slice(5)) + 1);
  });

  test('the next can be set ahead, and not back to one that was drawn', async () => {
    await approved();
    expect(await set({ next: '1' })).toMatchObject({ error: { field: 'next', fault: { kind: 'number_taken' } } });
    must(await set({ next: '70' }));
    expect((await approved()).number).toBe('2611-0070');
    expect((await typedNow()).next).toBe('71');
  });

  test('one that was typed before the pattern became what it is is passed over', async () => {
    const id = await draft();
    must(await editHead(books.deps, mira, req({ orderId: id, field: 'number' as const, was: '', now: 'B-001' })));
    const { version } = must(await readOrder(books.deps, mira, id)).head;
    must(await approveOrder(books.deps, otto, req({ orderId: id, version })));
    must(await set({ pattern: 'B-###', next: '1' }));
    expect((await approved()).number).toBe('B-002');
    const other = await draft();
    const typed = { orderId: other, field: 'number' as const, was: '', now: 'B-77' };
    must(await editHead(books.deps, mira, req(typed)));
    expect(await editHead(books.deps, mira, req({ ...typed, was: 'B-77', now: 'B-777' }))).toMatchObject({
      error: { fault: { kind: 'number_is_drawn' } },
    });
  });

  test.each([
    [{ pattern: 'YYMM' }, 'pattern'],
    [{ pattern: 'MM-###' }, 'pattern'],
    [{ start: '0' }, 'start'],
    [{ next: 'many' }, 'next'],
  ])('%j is refused', async (more, field) => expect(await set(more)).toMatchObject({ error: { field } }));

  test('what somebody else set meanwhile is not overwritten', async () => {
    const was = await typedNow();
    must(await set({ start: '5' }));
    expect(await setPapers(books.deps, otto, req({ ...was, start: '9', was }))).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
  });
});

test('what is set up stands on the paper: letterhead, foot, texts in the supplier’s language, and what is left out does not', async () => {
  await books.rows("UPDATE supplier SET language = 'de' WHERE id = 1");
  const { setup } = await typedNow();
  const texts = { ...setup.texts, de: { opening: 'Wir bestellen:', closing: 'Mit Dank' } };
  must(
    await set({
      setup: {
        letterhead: 'Quillon Wolle\nHafenstraße 2',
        foot: 'HRB 4711',
        hides: ['their_number', 'barcode'],
        texts,
      },
    }),
  );
  const { id } = await approved();
  const paper = must(await readOrderPaper(books.deps, mira, id));
  const text = (await pdfText(await orderPdf(paper))).flat().join(' ');
  for (const words of ['Hafenstraße 2', 'HRB 4711', 'Wir bestellen:', 'Mit Dank']) expect(text).toContain(words);
  expect(paper.setup.hides).toEqual(['their_number', 'barcode']);
});

test('the invoice of an order goes where it says', async () => {
  const id = await draft();
  const before = must(await readOrder(books.deps, mira, id)).invoiceTo;
  const edit = { orderId: id, field: 'invoiceAddress' as const, was: '', now: 'Books, Ledger Lane 1' };
  must(await editHead(books.deps, mira, req(edit)));
  expect(before).not.toBe('Books, Ledger Lane 1');
  expect(must(await readOrder(books.deps, mira, id)).invoiceTo).toBe('Books, Ledger Lane 1');
});
