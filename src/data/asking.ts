import { format } from 'mysql2';
import type { SqlValue, Tx } from './sql';

/** What an empty list is told as: nothing equals NULL. */
const NOTHING: readonly SqlValue[] = [null];

type Question = { readonly sql: string; answer: Answer | null };
type Answer = { readonly rows: readonly unknown[][]; readonly names: readonly string[] };

/** SELECTs that are asked before any answer is needed. Together: the first answer that is wanted sends all that were asked
 *  until then in one message to the server, so that many small reads cost one way there and back. In turn: each is sent when
 *  its answer is wanted, so that of many large reads only one is held at a time. */
export class Asking {
  private readonly open: Question[] = [];

  constructor(
    private readonly tx: Tx,
    private readonly how: 'together' | 'in_turn',
  ) {}

  /** Rows as arrays; `?` stands for a value, or for a list of them: IN an empty one is nothing. */
  arrays<T>(sql: string, values: readonly (SqlValue | readonly SqlValue[])[] = []): () => Promise<T[]> {
    const question = this.ask(sql, values);
    return async () => (await this.answerOf(question)).rows as T[];
  }

  /** Rows as objects, by the names of the columns. */
  rows<T>(sql: string, values: readonly (SqlValue | readonly SqlValue[])[] = []): () => Promise<T[]> {
    const question = this.ask(sql, values);
    return async () => {
      const { rows, names } = await this.answerOf(question);
      return rows.map((row) => {
        const named: Record<string, unknown> = {};
        for (let i = 0; i < names.length; i += 1) named[names[i] as string] = row[i];
        return named as T;
      });
    };
  }

  private ask(sql: string, values: readonly (SqlValue | readonly SqlValue[])[]): Question {
    const filled = values.map((v) => (Array.isArray(v) && v.length === 0 ? NOTHING : v));
    const question: Question = { sql: format(sql, filled as SqlValue[]), answer: null };
    this.open.push(question);
    return question;
  }

  private async answerOf(question: Question): Promise<Answer> {
    if (question.answer === null) {
      const sent = this.how === 'together' ? this.open.splice(0) : [question];
      if (!sent.includes(question)) throw new Error('the message with this question has failed');
      const answers = await this.tx.answers(sent.map((q) => q.sql));
      for (const [i, q] of sent.entries()) q.answer = answers[i] as Answer;
    }
    const { answer } = question;
    // What is large is not kept once it was given.
    if (this.how === 'in_turn') question.answer = null;
    return answer as Answer;
  }
}
