import type { Change } from '@/core/commands/change';
import type { Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { effectiveCommands, historyOf, type TakenBack } from '@/core/journal/history';
import { needSize } from '@/core/commands/memoryBudget';
import { Studio } from '@/core/journal/studio';
import { unworked, type HandMessage, type Numbered } from '@/engine/hand/handLog';
import { JournalWriter, type Said, type StoredJournal, type WritingNews } from './journalStore';
import { readHand, readJournal, readSnapshots, writeJournalRecord, type SnapshotManifest } from './shelf';
import type { PaintingRecord } from './paintingRecord';
import { restoreSnapshot, Snapshots, type SavedTiles } from './snapshots';

/** A painting that is being opened: what is there at once, and what is still to be painted. */
export interface Opening {
  readonly studio: Studio;
  readonly keeping: Keeping;
  /** Commands that lead from there to the end of the journal. */
  readonly rest: readonly Command[];
  /** What can be done again once they are done, the next last. */
  readonly undone: readonly TakenBack[];
  /** What the hand said at the end of another session that nobody has worked off. */
  readonly unworked: readonly Numbered<HandMessage>[];
  /** What the painter has to know, as sentences. */
  readonly told: string;
  /** Puts back what was kept of the last steps before it, the latest first, so that they can be taken back at once. */
  readonly past?: AsyncGenerator<undefined, void, undefined>;
}

/** A state on the way to one that was, and the commands that are missing. */
export interface Rebuilding {
  readonly studio: Studio;
  readonly rest: readonly Command[];
  readonly saved: SavedTiles;
}

/** Changes that a way back leads past, so that going farther back is quick as well. */
const BEFORE_IT = 6;

/** Keeps one painting: its journal as it grows, and snapshots now and then. */
export class Keeping {
  readonly snapshots: Snapshots;
  private readonly writer: JournalWriter;
  /** Entries by their place; undefined where one was lost by a version before. */
  private readonly all: (Command | undefined)[];
  /** Entries behind a gap that could not be done. */
  private readonly refused = new Set<Command>();
  private whole: boolean;

  private constructor(
    private readonly record: PaintingRecord,
    stored: StoredJournal,
    snapshots: Snapshots,
    news: WritingNews,
  ) {
    this.all = [...stored.entries];
    this.snapshots = snapshots;
    this.whole = stored.missing === 0;
    this.writer = new JournalWriter((part) => writeJournalRecord(record.id, part), news, stored);
  }

  get id(): string {
    return this.record.id;
  }

  /**
   * Opens a painting: the best snapshot that there is, and what is to be done after it.
   * @param session the present one: what the hand says in it reaches the host by itself
   * @throws PainterError when it is too large
   */
  static async open(record: PaintingRecord, news: WritingNews, session = Infinity): Promise<Opening> {
    needSize(record.spec);
    const stored = await readJournal(record.id);
    const snapshots = new Snapshots(record.id, await readSnapshots(record.id));
    const hand = (await readHand(record.id)).filter(({ record: said }) => said.session < session);
    const newest = snapshots.all[0]?.manifest;
    if (newest && newest.entries > stored.entries.length) {
      // a snapshot that is ahead of the journal has what the journal lost
      const lost = newest.entries - stored.entries.length;
      const entries = [...stored.entries, ...Array.from({ length: lost }, () => undefined)];
      Object.assign(stored, { entries, missing: stored.missing + lost, open: undefined });
    }
    const keeping = new Keeping(record, stored, snapshots, news);
    for (const { manifest } of snapshots.all) {
      const rest = keeping.restAfter(manifest, stored);
      if (!rest) continue;
      const studio = new Studio(record.spec);
      try {
        snapshots.adopt(await restoreSnapshot(studio, manifest));
      } catch {
        continue; // an older one, or the journal alone
      }
      studio.timeline.adopt(rest.history, !rest.gapBefore);
      const opening = keeping.opening(studio, rest, hand, stored, !rest.gapBefore && !rest.gapAfter);
      if (rest.gapBefore || !manifest.past) return opening;
      studio.timeline.awaitPast();
      return { ...opening, past: snapshots.putBackPast(studio, manifest) };
    }
    const known = keeping.entries;
    const { line, undone } = keeping.whole ? historyOf(known) : { line: known, undone: [] };
    return keeping.opening(new Studio(record.spec), { commands: line, undone }, hand, stored, keeping.whole);
  }

  private opening(
    studio: Studio,
    { commands, undone }: { commands: readonly Command[]; undone: readonly TakenBack[] },
    hand: Awaited<ReturnType<typeof readHand>>,
    { missing, said }: StoredJournal,
    undoable: boolean,
  ): Opening {
    const told =
      missing === 0
        ? ''
        : `${missing} ${missing === 1 ? 'step is' : 'steps are'} missing in what this browser kept of the painting. ` +
          (undoable ? '' : 'Everything else is here; what lies before them cannot be taken back.');
    const records = hand.map(({ record }) => record);
    return { studio, keeping: this, rest: commands, undone, unworked: unworked(records, said), told: told.trim() };
  }

  /** What is to be done after a snapshot; undefined when it does not lead to the end of the journal. */
  private restAfter({ entries, sum }: SnapshotManifest, { sums }: StoredJournal) {
    const gapBefore = this.all.slice(0, entries).includes(undefined);
    const gapAfter = this.all.slice(entries).includes(undefined);
    const known = (list: readonly (Command | undefined)[]) => list.filter((c) => c !== undefined);
    const history = effectiveCommands(known(this.all.slice(0, entries)));
    if (gapBefore || gapAfter) {
      return { history, commands: known(this.all.slice(entries)), undone: [], gapBefore, gapAfter };
    }
    if (sum !== undefined && sums[entries] !== sum) return undefined;
    const { line, undone } = historyOf(known(this.all));
    if (!beginsWith(line, history)) return undefined;
    return { history, commands: line.slice(history.length), undone, gapBefore, gapAfter };
  }

  /** The journal: every entry that is there, in order. */
  get entries(): Command[] {
    return this.all.filter((entry) => entry !== undefined && !this.refused.has(entry)) as Command[];
  }

  /** Entries that were lost. */
  get missing(): number {
    return this.all.reduce((sum, entry) => sum + (entry ? 0 : 1), 0);
  }

  /**
   * Applies an entry of the journal on opening. One that makes no sense any more, as behind a gap, is left out.
   * @returns what it changed
   */
  redo(studio: Studio, command: Command): Change | undefined {
    try {
      return studio.apply(command);
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
      this.refused.add(command);
      return undefined;
    }
  }

  /** Writes a command down. */
  append(command: Command, said?: Said): void {
    this.all.push(command);
    this.writer.append(command, said);
  }

  /** What was said up to there came to nothing that would have to be written down. */
  note(said: Said): void {
    this.writer.note(said);
  }

  /** Resolves when everything so far is stored. */
  stored(): Promise<void> {
    return this.writer.stored();
  }

  /** Commands that came since the last snapshot. */
  get sinceSnapshot(): number {
    return this.all.length - this.snapshots.entries;
  }

  beginSnapshot(studio: Studio): void {
    this.snapshots.begin(studio, this.all.length, this.whole ? this.writer.checksum : undefined);
  }

  /**
   * Goes on with the snapshot.
   * @param tiles how many are written at once @param hurried see Snapshots.next @returns whether it is complete
   */
  async continueSnapshot(tiles = 1, hurried = false): Promise<boolean> {
    try {
      return await this.snapshots.next(() => this.writer.stored(), tiles, hurried);
    } catch (error) {
      if (await this.snapshots.makeRoom().catch(() => false)) this.writer.retry();
      throw error;
    }
  }

  /**
   * A fresh studio on the way to a history, from the snapshot that is nearest to it, or from the empty ground.
   * @param enough whether what is left to be done from a snapshot is as much as one wants
   */
  async rebuild(
    target: readonly Command[],
    enough: (left: readonly Command[]) => boolean = (left) => left.length >= BEFORE_IT,
  ): Promise<Rebuilding> {
    const found: { manifest: SnapshotManifest; history: readonly Command[] }[] = [];
    for (const { manifest } of this.snapshots.all) {
      const history = effectiveCommands(this.all.slice(0, manifest.entries).filter((c) => c !== undefined));
      if (!beginsWith(target, history)) continue;
      found.push({ manifest, history });
      if (enough(target.slice(history.length))) break;
    }
    for (const { manifest, history } of found.reverse()) {
      const studio = new Studio(this.record.spec);
      try {
        const saved = await restoreSnapshot(studio, manifest);
        studio.timeline.adopt(history, !this.all.slice(0, manifest.entries).includes(undefined));
        return { studio, rest: target.slice(history.length), saved };
      } catch {
        continue;
      }
    }
    if (!this.whole) {
      throw new PainterError('What was done before cannot be taken back: strokes of it are missing in what was kept.');
    }
    return { studio: new Studio(this.record.spec), rest: target, saved: new Map() };
  }
}

const beginsWith = (whole: readonly Command[], start: readonly Command[]): boolean =>
  start.length <= whole.length && start.every((command, i) => whole[i] === command);
