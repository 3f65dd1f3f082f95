import type { HandlerFailure } from '@/services/failure';

export type ClientFailure = HandlerFailure | { readonly kind: 'unreachable' };
export type Outcome<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly failure: ClientFailure };
/** What came of a command, and the key it went out under: with it, it can be undone. */
export type Settled<T> = Outcome<T> & { readonly key: string };

/** 'until_sent': an entry in a list; it is repeated under its key until the server has answered, however long the line is
 *  away. 'once': a button; what could not be sent is said at once, and pressing it again goes out under the same key. */
export type Patience = 'until_sent' | 'once';

type Entry = {
  readonly name: string;
  readonly input: unknown;
  readonly key: string;
  readonly patience: Patience;
  readonly settle: (outcome: Outcome<unknown>) => void;
};

export type QueueState = {
  /** Entries not yet answered. */
  readonly waiting: number;
  /** Why the first of them does not get through; null while it does. */
  readonly held: 'unreachable' | 'signed_out' | null;
};

/** What a queue needs of the world; the browser's is in send.ts. */
export type Line = {
  readonly post: (name: string, key: string, input: unknown) => Promise<Outcome<unknown>>;
  readonly freshKey: () => string;
  /** Resolves after a while, or sooner when the line may be back. */
  readonly pause: (ms: number) => Promise<void>;
  /** Asks for the password again; true when signed in. */
  readonly signInAgain: () => Promise<boolean>;
};

const lost = new Set<ClientFailure['kind']>(['unreachable', 'database_unavailable', 'busy', 'defect']);
const repeated = new Set<ClientFailure['kind']>(['unreachable', 'database_unavailable', 'busy']);
const FIRST_PAUSE_MS = 300;
const LONGEST_PAUSE_MS = 5000;

/** The one way of commands from a client to the server: in the order they were given, one at a time, each under a key that
 *  stays the same however often it is repeated, so that it takes effect once. A refusal concerns its own entry; those
 *  behind it go on. */
export class CommandQueue {
  private readonly entries: Entry[] = [];
  private working = false;
  private state: QueueState = { waiting: 0, held: null };
  private readonly listeners = new Set<() => void>();
  /** Keys of commands that were sent once and whose answer was lost, by what they were. */
  private readonly unanswered = new Map<string, string>();

  constructor(private readonly line: Line) {}

  /** Puts a command at the end of the queue; resolves when it is settled. */
  send<T>(name: string, input: unknown, patience: Patience): Promise<Settled<T>> {
    const what = `${name} ${JSON.stringify(input)}`;
    const key = (patience === 'once' && this.unanswered.get(what)) || this.line.freshKey();
    return new Promise((resolve) => {
      const settle = (outcome: Outcome<unknown>) => {
        if (!outcome.ok && lost.has(outcome.failure.kind)) this.unanswered.set(what, key);
        else this.unanswered.delete(what);
        resolve({ ...outcome, key } as Settled<T>);
      };
      this.entries.push({ name, input, key, patience, settle });
      this.show(this.state.held);
      void this.work();
    });
  }

  readonly snapshot = (): QueueState => this.state;
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private show(held: QueueState['held']): void {
    this.state = { waiting: this.entries.length, held };
    for (const l of this.listeners) l();
  }

  private async work(): Promise<void> {
    if (this.working) return;
    this.working = true;
    for (let entry = this.entries[0]; entry; entry = this.entries[0]) {
      const outcome = await this.deliver(entry);
      this.entries.shift();
      this.show(null);
      entry.settle(outcome);
    }
    this.working = false;
  }

  /** Sends one entry until there is an answer to it. */
  private async deliver({ name, key, input, patience }: Entry): Promise<Outcome<unknown>> {
    for (let wait = FIRST_PAUSE_MS; ; wait = Math.min(2 * wait, LONGEST_PAUSE_MS)) {
      const outcome = await this.line.post(name, key, input);
      if (outcome.ok) return outcome;
      const { kind } = outcome.failure;
      if (kind === 'not_signed_in') {
        this.show('signed_out');
        const signedIn = await this.line.signInAgain();
        if (!signedIn && patience === 'once') return outcome;
        if (signedIn) wait = FIRST_PAUSE_MS / 2;
        else await this.line.pause(LONGEST_PAUSE_MS);
        continue;
      }
      if (patience === 'once' || !repeated.has(kind)) return outcome;
      this.show('unreachable');
      await this.line.pause(wait);
    }
  }
}
