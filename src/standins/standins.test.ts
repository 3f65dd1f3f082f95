import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createTransport } from 'nodemailer';
import { readMailbox, startMailbox } from './mailbox';
import { rateFile, startRateFile } from './rateFile';
import { startTill, tillRows } from './till';
import { startWebShop, webOrders } from './webShop';

describe('the file of rates', () => {
  const rows = (today: string, days: number) =>
    rateFile(today, days)
      .trimEnd()
      .split('\r\n')
      .map((r) => r.split(','));

  test('has every working day up to the date, and no other', () => {
    const [heads, ...lines] = rows('2026-11-25', 14);
    expect(heads).toEqual(['Currency', 'Valid from', 'Quoted as', 'Rate', 'Source']);
    // Two weeks back from a Wednesday: 12 November is a Thursday.
    expect([...new Set(lines.map((l) => l[1]))]).toEqual(
      '12 13 16 17 18 19 20 23 24 25'.split(' ').map((d) => `2026-11-${d}`),
    );
    for (const day of new Set(lines.map((l) => l[1])))
      expect(lines.filter((l) => l[1] === day).map((l) => l[0])).toEqual(['USD', 'GBP', 'JPY', 'CHF']);
  });

  test('is the same for the same day, whatever day it is asked on, and strays little', () => {
    const later = new Map(rows('2026-11-25', 60).map((l) => [`${l[0]} ${l[1]}`, l[3]]));
    for (const [currency, day, , rate] of rows('2026-11-11', 20).slice(1)) {
      expect(later.get(`${currency} ${day}`)).toBe(rate);
      // Decimals as quotations have them: two for a currency without a minor unit, four for the others.
      expect(rate).toMatch(currency === 'JPY' ? /^\d+\.\d{2}$/ : /^\d+\.\d{4}$/);
      const middle = { USD: 1.0842, GBP: 0.8571, JPY: 161.3, CHF: 0.9418 }[currency ?? ''] ?? 0;
      expect(Math.abs(Number(rate) / middle - 1)).toBeLessThan(0.017);
    }
  });

  test('is served on loopback as CSV; there is nothing else', async () => {
    const served = await startRateFile(0, () => new Date('2026-11-25T10:00:00Z'));
    const answer = await fetch(served.url);
    expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'text/csv; charset=utf-8']);
    expect(await answer.text()).toBe(rateFile('2026-11-25', 10));
    expect((await fetch(served.url.replace('rates', 'other'))).status).toBe(404);
    await served.close();
    await expect(fetch(served.url)).rejects.toThrow();
  });
});

describe('the mailbox', () => {
  test('keeps each mail as it came, newest first; the same message twice is one', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'vorrat-mailbox-'));
    const mailbox = await startMailbox(folder, 0);
    const transport = createTransport({ host: '127.0.0.1', port: mailbox.port, secure: false });
    const send = (n: number, subject: string) =>
      transport.sendMail({
        ...{ from: 'Quillon Yarn & Cloth <purchasing@quillon.example>', to: 'orders@hol.example' },
        ...{ subject, text: `Grüße, Nr. ${n}`, messageId: `<order-${n}@quillon.example>` },
      });
    await send(1, 'Purchase order 1');
    await new Promise((later) => setTimeout(later, 20));
    await send(2, 'Größenliste für Łódź');
    await send(1, 'Purchase order 1');
    const mails = await readMailbox(folder, 10);
    expect(mails.map((m) => m.subject).sort()).toEqual(['Größenliste für Łódź', 'Purchase order 1']);
    expect(readdirSync(folder)).toHaveLength(2);
    const second = mails.find((m) => m.subject.startsWith('Größ'));
    expect(second?.to).toContain('orders@hol.example');
    expect(second?.text.trim()).toBe('Grüße, Nr. 2');
    expect(await readMailbox(folder, 1)).toHaveLength(1);
    transport.close();
    await mailbox.close();
    rmSync(folder, { recursive: true });
    expect(await readMailbox(join(folder, 'gone'), 10)).toEqual([]);
  });
});

describe('the tills', () => {
  const assortment = [
    { place: 'HS', item: '10412-07', decimals: 0, perDay: 3 },
    { place: 'HS', item: '25100-04', decimals: 1, perDay: 2.4 },
    { place: 'OM', item: '70220-01', decimals: 0, perDay: 0.02 },
    { place: 'OM', item: 'bulk', decimals: 0, perDay: 120 },
  ];
  const days = Array.from({ length: 364 }, (_, n) =>
    new Date(Date.UTC(2026, 0, 5) + n * 86_400_000).toISOString().slice(0, 10),
  );

  test('ring up about what is usual, in the decimals an item is sold to, and nothing on Sundays', () => {
    const rows = days.flatMap((d) => tillRows(assortment, d).map((r) => r.split(',')));
    for (const a of assortment) {
      const own = rows.filter((r) => r[2] === a.item);
      expect(
        own.every((r) => r[0] === a.place && new RegExp(`^\\d+${a.decimals ? '\\.\\d' : ''}$`).test(r[3] ?? '')),
      ).toBe(true);
      const sold = own.reduce((sum, r) => sum + Number(r[3]), 0);
      // Mean of a compound Poisson; three standard deviations of a year leave room.
      const usual = a.perDay * 364;
      expect(Math.abs(sold - usual)).toBeLessThan(3 * Math.sqrt(usual * 2.2) + 0.03 * usual);
    }
    expect(rows.some((r) => new Date(`${r[1]}T00:00:00Z`).getUTCDay() === 0)).toBe(false);
  });

  test('are asked over loopback and answer the same however often', async () => {
    const till = await startTill(0);
    const ask = (body: string) => fetch(till.url, { method: 'POST', body });
    const span = JSON.stringify({ from: '2026-11-20', to: '2026-11-21', assortment });
    const [first, second] = [await (await ask(span)).text(), await (await ask(span)).text()];
    expect(first).toBe(second);
    expect(first.split('\r\n')[0]).toBe('Place,Day,Item,Quantity');
    expect((await ask('no json')).status).toBe(400);
    expect((await fetch(till.url)).status).toBe(404);
    await till.close();
  });
});

describe('the web shop', () => {
  const offered = [
    { item: 'A1', decimals: 0 },
    { item: 'B2', decimals: 1 },
    { item: 'C3', decimals: 0 },
  ];
  const span = (days: number) =>
    Array.from({ length: days }, (_, d) => new Date(Date.UTC(2026, 9, 1 + d)).toISOString().slice(0, 10));

  test('has one or two orders a day, each with a number, a customer and a few things of what is offered', () => {
    const orders = span(60).flatMap((d) => webOrders(offered, d));
    expect(orders.length).toBeGreaterThan(60);
    expect(orders.length).toBeLessThan(130);
    expect(new Set(orders.map((o) => o.number)).size).toBe(orders.length);
    for (const o of orders) {
      expect(o.mail).toMatch(/^[a-z-]+\.[a-z-]+@[a-z-]+\.example$/);
      expect(o.lines.length).toBeGreaterThan(0);
      expect(new Set(o.lines.map((l) => l.item)).size).toBe(o.lines.length);
      for (const l of o.lines) expect(l.quantity).toMatch(l.item === 'B2' ? /^\d+\.\d$/ : /^[1-4]$/);
    }
    expect(webOrders([], '2026-10-01')).toEqual([]);
  });

  test('answers what is asked of it, the same every time', async () => {
    const shop = await startWebShop(0);
    const ask = (body: string) => fetch(shop.url, { method: 'POST', body });
    const asked = JSON.stringify({ from: '2026-10-01', to: '2026-10-05', offered });
    const [first, second] = [await (await ask(asked)).json(), await (await ask(asked)).json()];
    expect(first).toEqual(second);
    expect(first).toEqual(span(5).flatMap((d) => webOrders(offered, d)));
    expect((await ask('no json')).status).toBe(400);
    await shop.close();
  });
});
