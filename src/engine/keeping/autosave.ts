import type { Command } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import type { Said } from './journalStore';
import type { Keeping } from './keeping';
import type { FromWorker } from '@/engine/protocol';
import { isStorageFull, readFace, writeFace, type PaintingFace } from './shelf';

/** Quiet time after which a snapshot is begun, ms; and commands after which one is begun in any case. */
const SNAPSHOT_QUIET_MS = 2500;
const SNAPSHOT_COMMANDS = 40;
/** Commands after which one is begun even if the hand is never waited for: so many are painted again in a few seconds. */
const SNAPSHOT_OVERDUE = 120;
/** How long it is waited at a time for a stroke in the air to end, ms. */
const WAIT_MS = 120;
/** Tiles that are written at once where the hand is ahead of the worker. */
const MANY_TILES = 24;
/** Time until a snapshot that could not be written is tried again, ms. */
const SNAPSHOT_AGAIN_MS = 20_000;
/** Quiet time after which the small picture for the rack is made, ms. */
const FACE_QUIET_MS = 700;

/** How often it is noted for the rack that a painting has changed, ms. */
const CHANGE_TOLD_MS = 1000;

/** What a host lends to its autosave. */
interface Host {
  readonly studio: () => Studio;
  readonly thumbnail: () => Uint8Array<ArrayBuffer>;
  readonly post: (message: FromWorker) => void;
}

/**
 * Keeps a painting while it is painted: every command at once, a snapshot and the picture for the rack when it is quiet.
 * In a painting that is only looked at it writes nothing.
 */
export class Autosave {
  /** Set when the picture for the rack is older than the painting. */
  faceIsOld = false;
  private face: PaintingFace = { changedAt: 0 };
  private nextSnapshot = 0;
  private changeTold = 0;

  constructor(
    readonly keeping: Keeping,
    private readonly host: Host,
    private readonly looking: boolean,
  ) {}

  async readFace(createdAt: number): Promise<void> {
    this.face = (await readFace(this.keeping.id)) ?? { changedAt: createdAt };
    this.faceIsOld = !this.face.thumbnail;
  }

  /** Writes a command down. @param said the last message of the hand whose outcome is in the journal with it */
  keep(command: Command, said: Said | undefined): void {
    if (this.looking) return;
    this.keeping.append(command, said);
    if (command.do !== 'stroke') return;
    this.face = { ...this.face, changedAt: Date.now() };
    if (this.face.changedAt - this.changeTold < CHANGE_TOLD_MS) return;
    this.changeTold = this.face.changedAt;
    writeFace(this.keeping.id, this.face).catch(() => {});
  }

  /** What was said came to nothing. */
  note(said: Said | undefined): void {
    if (said && !this.looking) this.keeping.note(said);
  }

  /** Whether a snapshot should be begun now. @param quiet time since the last change, ms */
  snapshotDue(quiet: number): boolean {
    if (this.looking || this.keeping.snapshots.inProgress || performance.now() < this.nextSnapshot) return false;
    const since = this.keeping.sinceSnapshot;
    return since > 0 && (quiet > SNAPSHOT_QUIET_MS || since > SNAPSHOT_COMMANDS);
  }

  /** Whether so much has been painted since the last snapshot that one is begun between two strokes. */
  get snapshotOverdue(): boolean {
    return this.snapshotDue(0) && this.keeping.sinceSnapshot > SNAPSHOT_OVERDUE;
  }

  /** Begins a snapshot of the state as it is, and writes it in the background. */
  async snapshot(): Promise<void> {
    const { keeping, host } = this;
    // a stroke in the air goes first; but where the hand is ahead there is always one
    let waits = !this.snapshotOverdue;
    keeping.beginSnapshot(host.studio());
    try {
      // a worker that is behind hears of each write late: it writes many at once
      const hurried = () => keeping.sinceSnapshot > SNAPSHOT_COMMANDS;
      while (!(await keeping.continueSnapshot(waits ? 1 : MANY_TILES, hurried()))) {
        while (waits && host.studio().strokeInAir) {
          await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
          waits = keeping.sinceSnapshot <= SNAPSHOT_COMMANDS;
        }
      }
    } catch {
      // the journal has everything; without a snapshot opening only takes longer
      this.nextSnapshot = performance.now() + SNAPSHOT_AGAIN_MS;
    }
  }

  /** Makes the picture for the rack anew, when it is time for it. */
  keepFace(quiet: number): void {
    if (!this.faceIsOld || this.looking || quiet < FACE_QUIET_MS) return;
    this.faceIsOld = false;
    this.face = { ...this.face, thumbnail: this.host.thumbnail() };
    // one that finds no room is no loss
    writeFace(this.keeping.id, this.face).catch(() => {});
  }
}

/** What a painter is told when strokes cannot be stored. */
export const notKeptSentence = (error: unknown): string =>
  isStorageFull(error)
    ? 'This browser has no room left, so the last strokes are not kept. Go on painting, and save the painting as a file.'
    : 'The last strokes could not be kept in this browser. Save the painting as a file.';
