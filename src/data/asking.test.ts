import { Asking } from './asking';
import type { Tx } from './sql';

/** A transaction that notes its messages and answers each SELECT with its own text. */
function server() {
  const messages: string[][] = [];
  const tx = {
    answers: async (sqls: readonly string[]) => {
      messages.push([...sqls]);
      return sqls.map((sql) => ({ rows: [[sql, 1]], names: ['text', 'n'] }));
    },
  };
  return { tx: tx as unknown as Tx, messages };
}

describe('what is asked before any answer is needed', () => {
  test('goes in one message, and what is asked later in the next; an answer is given as often as it is wanted', async () => {
    const { tx, messages } = server();
    const ask = new Asking(tx, 'together');
    const [a, b] = [ask.arrays('SELECT a'), ask.rows('SELECT b')];
    expect(messages).toEqual([]);
    expect(await b()).toEqual([{ text: 'SELECT b', n: 1 }]);
    const c = ask.arrays('SELECT c');
    expect(await a()).toEqual([['SELECT a', 1]]);
    expect(await c()).toEqual([['SELECT c', 1]]);
    expect(await b()).toEqual([{ text: 'SELECT b', n: 1 }]);
    expect(messages).toEqual([['SELECT a', 'SELECT b'], ['SELECT c']]);
  });

  test('in turn each is sent when it is wanted, and its answer is not kept', async () => {
    const { tx, messages } = server();
    const ask = new Asking(tx, 'in_turn');
    const [a, b] = [ask.arrays('SELECT a'), ask.arrays('SELECT b')];
    await b();
    await a();
    await b();
    expect(messages).toEqual([['SELECT b'], ['SELECT a'], ['SELECT b']]);
  });

  test('values are escaped into the text, lists as lists; nothing in them ends a statement', async () => {
    const { tx, messages } = server();
    const ask = new Asking(tx, 'together');
    const asked = [
      ask.arrays('SELECT x WHERE id IN (?)', [[1, 2, 3]]),
      ask.arrays('SELECT y WHERE name = ?', ["O'Neill; DROP TABLE need"]),
    ];
    for (const answer of asked) await answer();
    expect(messages).toEqual([
      ['SELECT x WHERE id IN (1, 2, 3)', "SELECT y WHERE name = 'O\\'Neill; DROP TABLE need'"],
    ]);
  });

  test('a fault is that of everybody whose question went in the message, and only theirs', async () => {
    const { tx } = server();
    let fail = true;
    const broken = {
      answers: async (sqls: readonly string[]) => {
        if (fail) throw new Error('gone away');
        return tx.answers(sqls);
      },
    } as unknown as Tx;
    const ask = new Asking(broken, 'together');
    const [a, b] = [ask.arrays('SELECT a'), ask.arrays('SELECT b')];
    await expect(a()).rejects.toThrow('gone away');
    fail = false;
    // What was in that message is not asked again behind anybody's back.
    await expect(b()).rejects.toThrow('has failed');
    const c = ask.arrays('SELECT c');
    expect(await c()).toEqual([['SELECT c', 1]]);
  });
});
