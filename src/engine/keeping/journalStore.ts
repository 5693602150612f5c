import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Command } from '@/core/commands/commands';

/**
 * How a journal is stored: as records, each of which says on its own which entries it has. A record is written in one
 * atomic put. The last one is rewritten with more entries until it is full and never with fewer, so whatever is
 * interrupted, what has been acknowledged can be read back.
 */
export interface JournalRecord {
  /** Place of its first entry in the journal, from 0. */
  readonly first: number;
  readonly entries: readonly Command[];
  /** Checksum over all entries of the journal up to and with its last one (see `RunningSum`). */
  readonly sum: string;
  /** The last thing the hand said whose outcome is in the journal up to here (see handLog.ts). */
  readonly said?: Said;
}

/** A place in what the hand has said: the session at the easel, counted from 1, and the message in it, from 1. */
export interface Said {
  readonly session: number;
  readonly no: number;
}

export const isLater = (a: Said, b: Said): boolean => a.session > b.session || (a.session === b.session && a.no > b.no);
export const NOTHING_SAID: Said = { session: 0, no: 0 };

/** Entries, and numbers in their strokes, with which a record is full: rewriting it must stay quick. */
const FULL_ENTRIES = 24;
const FULL_NUMBERS = 12_000;
/** Time until a refused write is tried again, ms; doubled each time up to the last. */
const RETRY_MS = 500;
const RETRY_MOST_MS = 8000;

const numbersIn = (command: Command): number => (command.do === 'stroke' ? command.samples.length * 7 : 100);

/** Checksum of a growing list of entries: that of the next is taken over the one before and the entry's JSON. */
export class RunningSum {
  value = '';

  add(entry: Command): void {
    this.value = bytesToHex(sha256(this.value + JSON.stringify(entry)).subarray(0, 16));
  }
}

/** What was read back. */
export interface StoredJournal {
  /** Entries by their place; undefined where one is missing. */
  readonly entries: readonly (Command | undefined)[];
  /** Checksum up to each number of entries; unknown from the first gap on. */
  readonly sums: readonly string[];
  /** How many entries are missing between those that are there. */
  readonly missing: number;
  readonly said: Said;
  /** The record that can still take entries, where it is the last. */
  readonly open: JournalRecord | undefined;
}

/**
 * Puts the records of a journal together.
 * @param blocks entries as versions before stored them: twenty a block, by the block's number
 */
export function assembleJournal(
  records: readonly JournalRecord[],
  blocks: ReadonlyMap<number, readonly Command[]> = new Map(),
): StoredJournal {
  const entries: (Command | undefined)[] = [];
  const lay = (first: number, part: readonly Command[]) => {
    while (entries.length < first) entries.push(undefined);
    part.forEach((entry, i) => (entries[first + i] = entry));
  };
  for (const [block, part] of [...blocks].sort(([a], [b]) => a - b)) if (part.length > 0) lay(block * OLD_BLOCK, part);
  const inOrder = [...records].sort((a, b) => a.first - b.first);
  let said = NOTHING_SAID;
  for (const record of inOrder) {
    lay(record.first, record.entries);
    if (record.said && isLater(record.said, said)) said = record.said;
  }
  const sum = new RunningSum();
  const sums = [''];
  let missing = 0;
  for (const entry of entries) {
    if (!entry) missing++;
    else if (missing === 0) {
      sum.add(entry);
      sums.push(sum.value);
    }
  }
  const damaged = inOrder.find(({ first, entries: part, sum: told }) => (sums[first + part.length] ?? told) !== told);
  if (damaged) {
    // entries that are not those that were written are no better than missing ones
    for (let i = damaged.first; i < damaged.first + damaged.entries.length; i++) entries[i] = undefined;
    missing += damaged.entries.length;
    sums.length = damaged.first + 1;
    while (entries.length > 0 && !entries.at(-1)) entries.pop();
  }
  return { entries, sums, missing, said, open: damaged ? undefined : inOrder.at(-1) };
}

/** Entries in a block of the versions before. */
export const OLD_BLOCK = 20;

/** Where records are put. Rejects when the storage refuses. */
export type PutRecord = (record: JournalRecord) => Promise<unknown>;

/** Told what has come of writing. */
export interface WritingNews {
  /** So many entries are stored, and with them what was said up to there. */
  kept(entries: number, said: Said): void;
  /** The storage has refused; it will be tried again. */
  refused(error: unknown): void;
}

/**
 * Writes a journal as it grows. One write is under way at a time, and takes everything that has come until then. What
 * has not been acknowledged stays to be written, however long the storage refuses.
 */
export class JournalWriter {
  private readonly entries: Command[] = [];
  private readonly sum = new RunningSum();
  /** Place of the first of `entries`, which are those of the open record and what comes after it. */
  private first: number;
  private acknowledged: number;
  /** Checksum at each length from `first` on; and for each of `entries` what had been said with it. */
  private sums: string[];
  private saids: Said[];
  private said: Said;
  private saidStored: Said;
  private running = false;
  private wake: (() => void) | undefined;
  private waiting: { upTo: number; resolve: () => void }[] = [];

  constructor(
    private readonly put: PutRecord,
    private readonly news: WritingNews,
    { entries, sums, said, open }: StoredJournal = assembleJournal([]),
    private readonly retryMs = RETRY_MS,
  ) {
    const whole = sums.length > entries.length;
    // after a gap the checksum begins anew with what is written from now on
    const goesOn = whole && open && open.first + open.entries.length === entries.length && !isFull(open.entries);
    this.first = goesOn ? open.first : entries.length;
    if (goesOn) this.entries.push(...open.entries);
    this.sums = whole ? sums.slice(this.first) : [''];
    this.sum.value = this.sums.at(-1)!;
    this.acknowledged = entries.length;
    this.saids = this.entries.map(() => said);
    this.said = this.saidStored = said;
  }

  /** How many entries there are. */
  get length(): number {
    return this.first + this.entries.length;
  }

  /** Adds an entry, and what has been said up to it. */
  append(entry: Command, said: Said = this.said): void {
    this.entries.push(entry);
    this.sum.add(entry);
    this.sums.push(this.sum.value);
    this.saids.push(said);
    this.said = said;
    void this.run();
  }

  /** Something was said that came to nothing: it need not be said again. */
  note(said: Said): void {
    this.said = said;
    void this.run();
  }

  /** Checksum over everything up to now. */
  get checksum(): string {
    return this.sum.value;
  }

  /** Resolves when everything up to now is stored. */
  stored(): Promise<void> {
    const upTo = this.length;
    if (this.acknowledged >= upTo) return Promise.resolve();
    return new Promise((resolve) => this.waiting.push({ upTo, resolve }));
  }

  /** Tries again now: there may be room. */
  retry(): void {
    this.wake?.();
  }

  private get behind(): boolean {
    return this.acknowledged < this.length || isLater(this.said, this.saidStored);
  }

  private async run(): Promise<void> {
    if (this.running) return;
    this.running = true;
    let pause = this.retryMs;
    while (this.behind) {
      const count = this.countForRecord();
      const part = this.entries.slice(0, count);
      const upTo = this.first + count;
      const said = upTo === this.length ? this.said : this.saids[count - 1];
      try {
        await this.put({ first: this.first, entries: part, sum: this.sums[count], said });
      } catch (error) {
        this.news.refused(error);
        await new Promise<void>((resolve) => {
          const timer = setTimeout(resolve, pause);
          this.wake = () => {
            clearTimeout(timer);
            resolve();
          };
        });
        pause = Math.min(RETRY_MOST_MS, pause * 2);
        continue;
      }
      pause = this.retryMs;
      this.acknowledged = upTo;
      this.saidStored = said;
      if (isFull(part)) {
        this.first = upTo;
        this.entries.splice(0, count);
        this.sums.splice(0, count);
        this.saids.splice(0, count);
      }
      this.news.kept(upTo, said);
      this.waiting = this.waiting.filter(({ upTo: wanted, resolve }) => {
        if (wanted <= upTo) resolve();
        return wanted > upTo;
      });
    }
    this.running = false;
  }

  /** How many of the entries go into the open record: until it is full. */
  private countForRecord(): number {
    let numbers = 0;
    for (let i = 0; i < this.entries.length; i++) {
      numbers += numbersIn(this.entries[i]);
      if (i + 1 >= FULL_ENTRIES || numbers >= FULL_NUMBERS) return i + 1;
    }
    return this.entries.length;
  }
}

/** The records of a journal that is there as a whole. */
export function* recordsOf(entries: readonly Command[]): Generator<JournalRecord> {
  const sum = new RunningSum();
  let first = 0;
  for (let end = 1; end <= entries.length; end++) {
    sum.add(entries[end - 1]);
    const part = entries.slice(first, end);
    if (!isFull(part) && end < entries.length) continue;
    yield { first, entries: part, sum: sum.value };
    first = end;
  }
}

function isFull(entries: readonly Command[]): boolean {
  return entries.length >= FULL_ENTRIES || entries.reduce((sum, entry) => sum + numbersIn(entry), 0) >= FULL_NUMBERS;
}
