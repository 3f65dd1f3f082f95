import { copyFileSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { err, ok } from '@/core/result';
import { DatabaseBusy, DatabaseUnavailable, isConnectionFault, isRetryable } from '@/data/errors';
import { migrate, statementsOf } from '@/data/migrate';
import { openPool } from '@/data/pool';
import { checkInvariants } from '@/data/repositories/invariants';
import { list, type Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { allocateStock } from '@/services/stock/allocateStock';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { beginCount } from '@/services/stock/beginCount';
import { countStock } from '@/services/stock/countStock';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { acceptSome, type Books, freshBooks, migrations, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());
const { deps } = { deps: () => books.deps };

describe('the application’s account', () => {
  const refused = { errno: 1142 };
  test.each([
    'UPDATE movement SET on_hand_change = 0 LIMIT 1',
    'DELETE FROM movement LIMIT 1',
    'DELETE FROM purchase_order LIMIT 1',
    'UPDATE decision SET reckoning = "{}" LIMIT 1',
    'DELETE FROM change_record LIMIT 1',
    'DROP TABLE need',
    'CREATE TABLE mine (id INT)',
  ])('may not: %s', async (sql) => {
    await expect(deps().pool.query(sql)).rejects.toMatchObject(refused);
  });
});

describe('strictness', () => {
  test('a missing placeholder is a defect, not NULL', async () => {
    await expect(readSnapshot(deps().pool, (tx) => tx.rows('SELECT :a AS a', {}))).rejects.toThrow('no value for :a');
  });

  test('an empty list is said, so the caller returns early', () => {
    expect(list('id', [])).toBeNull();
    expect(list('id', [3, 4])).toEqual({ sql: ':id0,:id1', values: { id0: 3, id1: 4 } });
  });

  test('decimals and dates come as text, and impossible dates are refused', async () => {
    const row = await readSnapshot(deps().pool, (tx) =>
      tx.row("SELECT CAST(1.5 AS DECIMAL(18,6)) AS d, DATE '2026-11-23' AS day, @@session.time_zone AS zone"),
    );
    expect(row).toEqual({ d: '1.500000', day: '2026-11-23', zone: '+00:00' });
    await expect(books.owner.query("UPDATE company SET needs_as_of = '2026-02-30'")).rejects.toMatchObject({
      errno: 1292,
    });
  });
});

describe('transactions', () => {
  test('an error value rolls back', async () => {
    const result = await write(deps().pool, async (tx) => {
      await tx.run('UPDATE company SET name = :name WHERE id = 1', { name: 'Changed' });
      return err('no' as const);
    });
    expect(result).toEqual({ ok: false, error: 'no' });
    expect((await books.one<{ name: string }>('SELECT name FROM company')).name).toBe('Quillon Yarn & Cloth');
  });

  test('a deadlock is tried again until both are through', async () => {
    const touch = (first: number, second: number) =>
      write(deps().pool, async (tx) => {
        await tx.run('UPDATE item SET version = version + 1 WHERE id = :id', { id: first });
        await new Promise((done) => setImmediate(done));
        await tx.row('SELECT SLEEP(0.05) AS s');
        await tx.run('UPDATE item SET version = version + 1 WHERE id = :id', { id: second });
        return ok(undefined);
      });
    await Promise.all([touch(1, 2), touch(2, 1), touch(1, 2), touch(2, 1)]);
    expect(await books.rows('SELECT version FROM item WHERE id IN (1, 2)')).toEqual([{ version: 5 }, { version: 5 }]);
  });

  test('what stays in the way is said as busy, and nothing changed', async () => {
    let attempts = 0;
    const stuck = write(deps().pool, async () => {
      attempts += 1;
      throw Object.assign(new Error('deadlock'), { errno: 1213 });
    });
    await expect(stuck).rejects.toBeInstanceOf(DatabaseBusy);
    expect(attempts).toBe(6);
  });

  test('a read sees one moment, whatever others commit meanwhile', async () => {
    const seen = await readSnapshot(deps().pool, async (tx) => {
      const before = await tx.row<{ v: number }>('SELECT version AS v FROM item WHERE id = 3');
      await books.owner.query('UPDATE item SET version = version + 1 WHERE id = 3');
      const after = await tx.row<{ v: number }>('SELECT version AS v FROM item WHERE id = 3');
      return [before?.v, after?.v];
    });
    expect(seen[0]).toBe(seen[1]);
  });

  test('a database that is not there is said, not thrown as a defect', async () => {
    const away = openPool({ host: '127.0.0.1', port: 1, user: 'x', password: 'x', database: 'x' }, 1);
    await expect(readSnapshot(away, async () => 1)).rejects.toBeInstanceOf(DatabaseUnavailable);
    await expect(write(away, async () => ok(1))).rejects.toBeInstanceOf(DatabaseUnavailable);
    await away.end();
  });

  test('a connection killed in the middle of a write: unavailable, rolled back, and the pool goes on', async () => {
    const cut = write(deps().pool, async (tx: Tx) => {
      await tx.run('UPDATE company SET name = :name WHERE id = 1', { name: 'Half done' });
      const me = await tx.row<{ id: number }>('SELECT CONNECTION_ID() AS id');
      await books.owner.query(`KILL ${me?.id}`).catch(async () => {
        // The owner has no CONNECTION ADMIN: the account may end its own connections.
        await deps().pool.query(`KILL ${me?.id}`);
      });
      await tx.row('SELECT 1');
      return ok(undefined);
    });
    await expect(cut).rejects.toBeInstanceOf(DatabaseUnavailable);
    expect((await books.one<{ name: string }>('SELECT name FROM company')).name).toBe('Quillon Yarn & Cloth');
    expect(await readSnapshot(deps().pool, (tx) => tx.row('SELECT 1 AS one'))).toEqual({ one: 1 });
  });
});

describe('kinds of faults', () => {
  test.each([
    [{ errno: 1213 }, true, false],
    [{ errno: 1205 }, true, false],
    [{ errno: 1062 }, false, false],
    [{ errno: 1045, fatal: true, code: 'ER_ACCESS_DENIED_ERROR' }, false, false],
    [{ code: 'ECONNREFUSED', errno: -111, fatal: true }, false, true],
    [{ code: 'PROTOCOL_CONNECTION_LOST', fatal: true }, false, true],
    [{ fatal: true, message: 'connection is in closed state' }, false, true],
    [{ errno: 1927 }, false, true],
    [new TypeError('a defect'), false, false],
    [null, false, false],
  ])('%j', (fault, retryable, connection) => {
    expect(isRetryable(fault)).toBe(retryable);
    expect(isConnectionFault(fault)).toBe(connection);
  });
});

describe('migrations', () => {
  test('comments go, statements end at a semicolon that ends a line', () => {
    expect(statementsOf("-- a\nCREATE TABLE a (b CHAR(1) DEFAULT ';x');\n\nDROP TABLE a;\n")).toEqual([
      "CREATE TABLE a (b CHAR(1) DEFAULT ';x')",
      'DROP TABLE a',
    ]);
  });

  test('a second run does nothing; what ran must be a prefix of the files; a cut-off run goes on where it stopped', async () => {
    expect(await migrate(books.owner, migrations)).toEqual([]);
    const folder = mkdtempSync(join(tmpdir(), 'vorrat-migrations-'));
    await expect(migrate(books.owner, folder)).rejects.toThrow('0001_ground.sql ran here but is not number 1');
    for (const file of readdirSync(migrations)) copyFileSync(join(migrations, file), join(folder, file));
    writeFileSync(
      join(folder, '9002_more.sql'),
      'CREATE TABLE extra (id INT PRIMARY KEY);\nINSERT INTO extra VALUES (1), (1);\n',
    );
    await expect(migrate(books.owner, folder)).rejects.toMatchObject({ errno: 1062 });
    writeFileSync(
      join(folder, '9002_more.sql'),
      'CREATE TABLE extra (id INT PRIMARY KEY);\nINSERT INTO extra VALUES (1), (2);\n',
    );
    expect(await migrate(books.owner, folder)).toEqual([{ file: '9002_more.sql', statements: 2 }]);
    expect(await books.rows('SELECT COUNT(*) AS n FROM extra')).toEqual([{ n: 2 }]);
  });
});

describe('verify-data notices', () => {
  const spoilt: Record<string, string> = {
    'levels equal the sum of their movements': 'UPDATE level SET on_hand = on_hand + 1 LIMIT 1',
    'nothing on hand has no value': 'UPDATE level SET on_hand = 0, value_minor = 5 LIMIT 1',
    'what is allocated is what allocations hold':
      'UPDATE level SET allocated = allocated + 1 WHERE on_hand > 5 LIMIT 1',
    'no more is promised than is there': 'UPDATE level SET allocated = on_hand + 1 WHERE on_hand > 0 LIMIT 1',
    'a promise is taken when all of it went, held while some is left':
      "UPDATE allocation SET state = 'taken' WHERE state = 'held' LIMIT 1",
    'what stands in transit is what transfers have on the way, in quantity and value':
      'UPDATE transfer_line SET received_value_minor = received_value_minor + 1 LIMIT 1',
    'a transfer is received when nothing of it is on the way': "UPDATE transfer SET state = 'received' LIMIT 1",
    'a transfer moves value without making or losing any':
      "UPDATE movement SET value_change_minor = value_change_minor + 1 WHERE document_kind = 'transfer' LIMIT 1",
    'every line of a sale, count or correction has its movement':
      "DELETE FROM movement WHERE document_kind = 'sale' LIMIT 1",
    'a posted count has the document of its number with all that was counted, any other has none':
      "UPDATE stock_count SET state = 'posted' WHERE state = 'open' LIMIT 1",
    'what is left of lots is the sum of their movements': 'UPDATE lot_level SET quantity = quantity + 1 LIMIT 1',
    'no more lies in lots than is there, and a serial number lies at one place':
      'UPDATE lot_level SET quantity = 100000 LIMIT 1',
    'what an approved transfer sends is promised for it, or was released because it is not there; of what is only asked for, what was bought for it':
      'UPDATE allocation SET quantity = quantity + 1 WHERE id IN (SELECT allocation_id FROM transfer_line)',
    'inspection and blocked are never negative': 'UPDATE level SET blocked = -1 LIMIT 1',
    'delivery parts add up to their line': 'UPDATE order_line SET base_quantity = base_quantity + 1 LIMIT 1',
    'received quantities and values equal their receipts':
      'UPDATE delivery_part SET received_value_minor = received_value_minor + 1 LIMIT 1',
    'every receipt line has its movement with its value, and a reversed one its reversal':
      "DELETE FROM movement WHERE kind = 'receipt_reversal' LIMIT 1",
    'orders beyond draft have a number, other drafts have none unless approved before':
      "UPDATE purchase_order SET state = 'put_back' WHERE id = 7",
    'no number is missing or beyond its counter':
      "UPDATE number_counter SET last_number = last_number + 1 WHERE pattern = 'PO' LIMIT 1",
    'ordered tray lines stand on exactly one live order, others on none': `INSERT INTO tray_line (supplier_id, decision_id, item_id, location_id, source_id, pack_quantity, base_quantity, state, created_by, created_at)
       SELECT 1, d.id, 1, 1, 1, 1, 1, 'ordered', 1, '2026-11-23' FROM decision d LIMIT 1`,
    'nothing that stayed was received on an order that is not approved':
      "UPDATE purchase_order SET state = 'cancelled' WHERE id = 5",
    'nothing is still to come of a closed or a cancelled order that its supplier knew, and nothing was cancelled beyond what was ordered':
      "UPDATE purchase_order SET state = 'closed' WHERE id = 7",
    'an order that a mail carries is approved, and the mail is its own': `UPDATE purchase_order SET sending_mail_id =
       (SELECT MAX(id) FROM outbox_mail) WHERE id = 7`,
    'no line is approved without a price unless free of charge':
      'UPDATE order_line SET price_amount = NULL WHERE order_id = 7 LIMIT 1',
    'nothing lies ready for a customer beyond what is open of the line, or at another place':
      'UPDATE customer_line SET location_id = 2 WHERE id = 1',
    'a customer’s order is open as long as something of it is': "UPDATE customer_order SET state = 'done' WHERE id = 1",
    'what was handed over to a customer stands on sales, or on receipts of what was sent straight':
      'UPDATE customer_line SET handed_over = handed_over + 1 WHERE id = 1',
    'a need that is bought for one line is of a line of its item from its place':
      "INSERT INTO need (item_id, location_id, peg_of, peg, state, cause, shortage, suggested, fingerprint, first_seen, changed_at) VALUES (1, 1, 'transfer_line', 999999, 'none', '', 0, 0, 'x', NOW(), NOW())",
    'a need that is bought for one customer is of a line of its item at its place':
      "INSERT INTO need (item_id, location_id, peg_of, peg, state, cause, shortage, suggested, fingerprint, first_seen, changed_at) VALUES (1, 1, 'customer_demand', 999999, 'none', '', 0, 0, 'x', NOW(), NOW())",
    'what goes straight to a customer is bought for that line, is of its item, and moves no stock':
      'UPDATE tray_line SET customer_line_id = 1 LIMIT 1',
    'needs agree with the state of their pair (unless marked for recomputation)':
      "UPDATE need SET suggested = suggested + 1 WHERE state = 'open' LIMIT 1",
  };
  beforeAll(async () => {
    await acceptSome(books, '1');
    await books.owner.query(
      "INSERT INTO outbox_mail (message_id, recipient, subject, body, entity, entity_id, next_try_at, created_at) VALUES ('<a@b>', 'a@b.example', 's', 't', 'customer_order', 1, NOW(), NOW())",
    );
    const line = { itemId: 1, quantity: '2' };
    const promise = { itemId: 1, locationId: 1, quantity: '1', promisedTo: 'Tamsin Oor' };
    must(await allocateStock(deps(), mira, req(promise)));
    const entered = { customerId: null, customer: { name: 'Ada', mail: '', phone: '', address: '' } };
    const ordered = { itemId: 3, packId: null, quantity: '3', locationId: 4, way: 'collect' as const };
    must(
      await enterCustomerOrder(
        deps(),
        mira,
        req({
          ...{ ...entered, channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '' },
          lines: [{ ...ordered, wantedDate: '', shipBy: '', holdUntil: '' }],
        }),
      ),
    );
    must(await shipTransfer(deps(), mira, req({ fromLocationId: 4, toLocationId: 1, lines: [line] })));
    must(await countStock(deps(), mira, req({ locationId: 2, note: '', lines: [{ itemId: 1, quantity: '9' }] })));
    const asked = {
      fromLocationId: 4,
      toLocationId: 3,
      wantedDate: '',
      note: '',
      lines: [{ itemId: 2, quantity: '2' }],
    };
    const { transferId } = must(await requestTransfer(deps(), mira, req(asked)));
    const lines = [{ lineNo: 1, approved: '2' }];
    must(await approveTransfer(deps(), mira, req({ transferId, version: 1, lines })));
    const sale = { locationId: 4, businessDate: '', lines: [{ ...line, allocationId: null }] };
    must(await sellGoods(deps(), mira, req(sale)));
    await books.rows("INSERT INTO lot (id, item_id, code, made_at) VALUES (1, 2, 'A', '2026-11-23')");
    await books.rows('INSERT INTO lot_level (lot_id, location_id, quantity) VALUES (1, 4, 1)');
    await books.rows(
      'INSERT INTO movement_lot (item_id, location_id, posting, lot_id, quantity) VALUES (2, 4, 1, 1, 1)',
    );
    const counting = { what: 'marked' as const, category: '', shelf: '', itemIds: [1], name: 'One', blind: false };
    must(await beginCount(deps(), mira, req({ ...counting, locationId: 1 })));
    must(await reverseReceipt(deps(), mira, req({ receiptId: 1, reason: 'test' })));
  });

  test('nothing in sound books; every invariant has a way to be broken here', async () => {
    const all = await readSnapshot(deps().pool, checkInvariants);
    expect(all.filter((i) => i.violations > 0)).toEqual([]);
    expect(all.map((i) => i.name).sort()).toEqual(Object.keys(spoilt).sort());
  });

  test.each(Object.entries(spoilt))('%s', async (name, sql) => {
    const found = await write(books.owner, async (tx) => {
      expect((await tx.run(sql)).affected).toBe(1);
      return err(await checkInvariants(tx));
    });
    expect(!found.ok && found.error.find((i) => i.name === name)?.violations).toBeGreaterThan(0);
    expect(await violations(books)).toEqual([]);
  });
});
