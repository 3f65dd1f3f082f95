import type { PoolConnection } from 'mysql2/promise';
import { Asking } from './asking';
import { Tx } from './sql';

/** A connection that notes every message and answers each of its statements: an INSERT with the next id, a SELECT with one row. */
function connection() {
  const messages: string[] = [];
  let id = 0;
  const answerTo = (sql: string) => {
    if (/^SELECT/.test(sql)) return [[sql]];
    if (/^INSERT/.test(sql)) id += 1;
    return { insertId: /^INSERT/.test(sql) ? id : 0, affectedRows: 1 };
  };
  const query = async (text: string | { sql: string }) => {
    const sql = typeof text === 'string' ? text : text.sql;
    messages.push(sql);
    const answers = sql.split(';\n').map(answerTo);
    const fields = answers.map((a) => (Array.isArray(a) ? [{ name: 'x' }] : undefined));
    return answers.length === 1 ? [answers[0], fields[0]] : [answers, fields];
  };
  return { messages, tx: new Tx({ query, execute: query } as unknown as PoolConnection, ['START TRANSACTION']) };
}
const write = (table: string, value = 1) => ({ sql: `INSERT INTO ${table} VALUES (?)`, values: [value] });

test('a transaction begins with its first message; one that says nothing sends nothing', async () => {
  const { tx, messages } = connection();
  await tx.tell([write('a')]);
  await tx.end('COMMIT');
  expect(messages).toEqual(['START TRANSACTION;\nINSERT INTO a VALUES (1)', 'COMMIT']);

  const silent = connection();
  await silent.tx.end('ROLLBACK');
  expect(silent.messages).toEqual([]);
});

test('what nothing waits for goes ahead of what comes next, in its order, at the latest with the commit', async () => {
  const { tx, messages } = connection();
  await tx.later([write('a'), write('b')]);
  expect(messages).toEqual([]);
  const answers = await tx.answers(['SELECT 1', 'SELECT 2']);
  expect(answers.map((a) => a.rows)).toEqual([[['SELECT 1']], [['SELECT 2']]]);
  expect(answers.map((a) => a.names)).toEqual([['x'], ['x']]);
  await tx.later([write('c')]);
  await tx.run('DELETE FROM d');
  await tx.later([write('e')]);
  await tx.end('COMMIT');
  expect(messages).toEqual([
    'START TRANSACTION;\nINSERT INTO a VALUES (1);\nINSERT INTO b VALUES (1);\nSELECT 1;\nSELECT 2',
    'INSERT INTO c VALUES (1)',
    'DELETE FROM d',
    'INSERT INTO e VALUES (1);\nCOMMIT',
  ]);
});

test('ids are those of what was told, not of what went ahead of it', async () => {
  const { tx } = connection();
  await tx.later([write('a')]);
  expect(await tx.tell([write('b'), { sql: 'UPDATE c SET x = ?', values: [1] }, write('d')])).toEqual([2, 0, 3]);
});

test('what is asked together goes in one message; in an empty list is nothing', async () => {
  const { tx, messages } = connection();
  const ask = new Asking(tx, 'together');
  const [some, none] = [
    ask.rows('SELECT x FROM a WHERE id IN (?) AND y = ?', [[1, 2], 'o’clock']),
    ask.arrays('SELECT x FROM b WHERE id IN (?)', [[]]),
  ];
  expect(await some()).toEqual([{ x: "SELECT x FROM a WHERE id IN (1, 2) AND y = 'o’clock'" }]);
  expect(await none()).toEqual([['SELECT x FROM b WHERE id IN (NULL)']]);
  expect(messages).toHaveLength(1);
});

test('a rollback drops what waits; a large write does not wait', async () => {
  const { tx, messages } = connection();
  await tx.later([{ sql: 'INSERT INTO a VALUES (?)', values: ['x'.repeat(300_000)] }]);
  expect(messages).toHaveLength(1);
  await tx.later([write('b')]);
  await tx.end('ROLLBACK');
  expect(messages.slice(1)).toEqual(['ROLLBACK']);
});

test('values are escaped into the text: nothing in them ends a statement or stands for another value', async () => {
  const { tx, messages } = connection();
  await tx.tell([{ sql: 'UPDATE a SET note = ? WHERE id = ?', values: ["O'Neill; :id ? DROP TABLE need", 7] }]);
  expect(messages).toEqual(["START TRANSACTION;\nUPDATE a SET note = 'O\\'Neill; :id ? DROP TABLE need' WHERE id = 7"]);
});
