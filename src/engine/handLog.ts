import type { Command } from '@/core/journal/commands';
import type { OwnPaint } from '@/core/colour/ownPaints';
import { isLater, NOTHING_SAID, type Said } from './journalStore';
import { readHand, removeHand, writeHand } from './shelf';

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

/** The page's log of one session at a painting. */
export class HandLog {
  private last = 0;
  private unwritten: HandMessage[] = [];
  private firstUnwritten = 1;
  private writing = false;
  private underWay: Promise<void> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Records that are stored, with the number of their last message. */
  private stored: { key: string; session: number; last: number }[] = [];
  private storedAt = 0;
  /** Numbers with which strokes ended that are not stored yet. */
  private open: number[] = [];
  private closed = false;

  constructor(
    private readonly painting: string,
    readonly session: number,
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
    // a stroke that has been lifted does not wait
    if (message.say === 'stroke-end') this.flush();
    else if (!this.writing) this.timer ??= setTimeout(() => void this.write(), BEHIND_MS);
    return { session: this.session, no: this.last };
  }

  /** What was said up to there is in the stored journal. */
  acknowledge(said: Said): void {
    const done = this.stored.filter(({ session, last }) => !isLater({ session, no: last }, said));
    if (done.length > 0) {
      this.stored = this.stored.filter((record) => !done.includes(record));
      // one that stays behind is known to be done, and goes with the next session
      for (const { key } of done) void removeHand(key).catch(() => {});
    }
    if (said.session !== this.session) return;
    // what has not been written down by now need not be
    const drop = Math.max(0, Math.min(this.unwritten.length, said.no - this.firstUnwritten + 1));
    if (!this.writing && drop > 0) {
      this.unwritten.splice(0, drop);
      this.firstUnwritten += drop;
    }
    this.settle(said.no);
  }

  /** Writes what has not been written yet: the page may be about to go. */
  flush(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    void this.write();
  }

  /** Writes the rest, and no more. Resolves when that is stored, or cannot be. */
  async close(): Promise<void> {
    this.closed = true;
    this.flush();
    await this.underWay;
    // what came while the last was being written
    if (this.unwritten.length > 0) await this.write();
  }

  private write(): Promise<void> {
    this.timer = undefined;
    if (this.writing || this.unwritten.length === 0) return Promise.resolve();
    return (this.underWay = this.writeNow());
  }

  private async writeNow(): Promise<void> {
    this.writing = true;
    const messages = this.unwritten.slice();
    const first = this.firstUnwritten;
    const last = first + messages.length - 1;
    const pad = (n: number) => String(n).padStart(10, '0');
    const key = `${this.painting}/${pad(this.session)}-${pad(first)}`;
    let again = 0;
    try {
      await writeHand(key, { session: this.session, first, messages });
      this.unwritten.splice(0, messages.length);
      this.firstUnwritten = last + 1;
      this.stored.push({ key, session: this.session, last });
      this.settle(last);
    } catch {
      // the worker tells of a full storage; the messages stay to be written
      again = RETRY_MS;
    }
    this.writing = false;
    if (this.unwritten.length > 0 && !this.closed) this.timer ??= setTimeout(() => void this.write(), again);
  }

  private settle(upTo: number): void {
    this.open = this.open.filter((no) => no > upTo);
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
    else if (message.say === 'stroke-samples') stroke?.push(message);
    else if (message.say === 'stroke-end') {
      if (stroke) whole.push(...stroke, message);
      stroke = undefined;
    } else whole.push(message);
  }
  return whole;
}
