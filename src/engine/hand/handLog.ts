import type { Command } from '@/core/commands/commands';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { isLater, NOTHING_SAID, type Said } from '@/engine/keeping/journalStore';
import type { HandStore } from './handStore';
import { readHand } from '@/engine/keeping/shelf';

/**
 * What the hand says to a painting. The page writes it down as it comes, beside sending it to the worker: what the
 * worker has not worked off when the browser dies is then made good on opening. Once the outcome is in the stored
 * journal, it is removed again.
 */
export type HandMessage =
  | { readonly say: 'command'; readonly command: Command }
  | { readonly say: 'stroke-begin'; readonly on?: 'slab' }
  /** Readings [t ms, x mm, y mm, pressure, tiltX, tiltY, twist]; `newest` is the time of the last one, ms since epoch. */
  | { readonly say: 'stroke-samples'; readonly samples: number[][]; readonly newest: number }
  | { readonly say: 'stroke-end' }
  /** An own paint that may be used from now on. */
  | { readonly say: 'paint'; readonly paint: OwnPaint };

export type Numbered<M> = M & { readonly said?: Said };

export interface LoggedRecord {
  readonly session: number;
  /** Number of its first message; the others follow. */
  readonly first: number;
  readonly messages: readonly HandMessage[];
}

/** Longest time that what was said waits to be written, ms. */
const BEHIND_MS = 60;
/** Time until a refused write is tried again, ms. */
const RETRY_MS = 1000;

/** Strokes of which nothing is stored yet, and when the last thing was stored, ms since epoch (0 not yet). */
export interface HandNews {
  readonly waiting: number;
  readonly storedAt: number;
}

/**
 * The page's log of one session at a painting. Records do not wait for each other: a storage that is busy with something
 * else has all of them to do, and none is held back here.
 */
export class HandLog {
  private last = 0;
  private unwritten: HandMessage[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly underWay = new Set<Promise<void>>();
  /** Records that are stored, with the number of their last message. */
  private stored: { key: string; session: number; last: number }[] = [];
  /** Numbers with which strokes ended that are not stored yet. */
  private open: number[] = [];
  /** Numbers of messages that are stored, as far as they follow each other; and records beyond. */
  private storedTo = 0;
  private readonly beyond = new Map<number, number>();
  private storedAt = 0;
  private closed = false;

  constructor(
    private readonly painting: string,
    readonly session: number,
    private readonly store: HandStore,
    private readonly told: (news: HandNews) => void,
  ) {}

  /** Remembers records of sessions before, to remove them once what they say is in the journal. */
  async takeOver(): Promise<void> {
    for (const { key, record } of await readHand(this.painting)) {
      this.stored.push({ key, session: record.session, last: record.first + record.messages.length - 1 });
    }
  }

  /** Writes a message down. @returns its number, to be sent along with it */
  say(message: HandMessage): Said {
    this.unwritten.push(message);
    this.last++;
    if (message.say === 'stroke-end') {
      this.open.push(this.last);
      this.tell();
    }
    // what has been lifted or said does not wait
    if (message.say === 'stroke-end' || message.say === 'command') this.flush();
    else this.timer ??= setTimeout(() => this.flush(), BEHIND_MS);
    return { session: this.session, no: this.last };
  }

  /** What was said up to there is in the stored journal. */
  acknowledge(said: Said): void {
    const done = this.stored.filter(({ session, last }) => !isLater({ session, no: last }, said));
    if (done.length > 0) {
      this.stored = this.stored.filter((record) => !done.includes(record));
      this.store.remove(done.map(({ key }) => key));
    }
    if (said.session === this.session) this.settle(said.no);
  }

  /** Writes what has not been written yet. */
  flush(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    if (this.unwritten.length === 0) return;
    const record = { session: this.session, first: this.last - this.unwritten.length + 1, messages: this.unwritten };
    this.unwritten = [];
    const work = this.write(record).finally(() => this.underWay.delete(work));
    this.underWay.add(work);
  }

  /** Writes the rest, and no more. Resolves when that is stored, or cannot be. */
  async close(): Promise<void> {
    this.closed = true;
    this.flush();
    await Promise.all(this.underWay);
    this.store.close();
  }

  private async write(record: LoggedRecord): Promise<void> {
    const { session, first, messages } = record;
    const last = first + messages.length - 1;
    const pad = (n: number) => String(n).padStart(10, '0');
    const key = `${this.painting}/${pad(session)}-${pad(first)}`;
    for (;;) {
      try {
        await this.store.write(key, record);
        break;
      } catch {
        // the worker tells of a full storage; what it has stored meanwhile need not be written here
        if (this.closed) return;
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        if (this.storedTo >= last) return;
      }
    }
    this.stored.push({ key, session, last });
    this.beyond.set(first, last);
    this.settle(this.storedTo);
  }

  /** Everything of this session up to a number is stored, here or in the journal. */
  private settle(upTo: number): void {
    this.storedTo = Math.max(this.storedTo, upTo);
    for (const [first, last] of [...this.beyond].sort(([a], [b]) => a - b)) {
      if (first > this.storedTo + 1) break;
      this.storedTo = Math.max(this.storedTo, last);
      this.beyond.delete(first);
    }
    this.open = this.open.filter((no) => no > this.storedTo);
    this.storedAt = Date.now();
    this.tell();
  }

  private tell(): void {
    this.told({ waiting: this.open.length, storedAt: this.storedAt });
  }
}

/**
 * What the hand said and the journal does not have yet, in order; a stroke that was never ended is left out.
 * @param said up to where the journal has it
 */
export function unworked(records: readonly LoggedRecord[], said: Said = NOTHING_SAID): Numbered<HandMessage>[] {
  const all: Numbered<HandMessage>[] = [];
  const inOrder = [...records].sort((a, b) => a.session - b.session || a.first - b.first);
  let next = NOTHING_SAID;
  for (const { session, first, messages } of inOrder) {
    messages.forEach((message, i) => {
      const at = { session, no: first + i };
      // a record that was written twice with more in it says the same again
      if (!isLater(at, said) || !isLater(at, next)) return;
      next = at;
      all.push({ ...message, said: at });
    });
  }
  const whole: Numbered<HandMessage>[] = [];
  let stroke: Numbered<HandMessage>[] | undefined;
  for (const message of all) {
    if (message.say === 'stroke-begin') stroke = [message];
    else if (message.say === 'stroke-samples') {
      // of a stroke in which something is missing nothing is known for sure
      if (message.said!.no === (stroke?.at(-1)?.said?.no ?? 0) + 1) stroke?.push(message);
      else stroke = undefined;
    } else if (message.say === 'stroke-end') {
      if (stroke) whole.push(...stroke, message);
      stroke = undefined;
    } else whole.push(message);
  }
  return whole;
}
