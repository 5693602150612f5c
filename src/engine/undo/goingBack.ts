import type { Command } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';
import type { Timeline } from '@/core/journal/timeline';
import { CatchUp } from './catchUp';
import type { Keeping, Opening, Rebuilding } from '@/engine/keeping/keeping';
import type { FromWorker } from '@/engine/protocol';
import { ReadyUndo } from './readyUndo';

type Undone = Parameters<Timeline['adoptUndone']>[0];

/** What a host lends to those who go far back. */
interface Host {
  readonly studio: () => Studio;
  readonly keeping: () => Keeping;
  readonly post: (message: FromWorker) => void;
  /** Nothing else is done until this is there. */
  readonly wait: (work: Promise<void>) => void;
  /** Paints commands again, a slice of time after the other; undefined for no longer. */
  readonly catchUp: (work: CatchUp | undefined) => void;
  /** Does a command, as a painter asked for it. */
  readonly attempt: (command: Command) => void;
  /** It was given up. */
  readonly cancelled: () => void;
  /** Puts a state that was painted again in the place of the present one. */
  readonly arrive: (found: Rebuilding, undone: Undone, command: Command) => void;
}

/**
 * Undo and redo that go farther than what is at hand: by steps that are kept in the browser, by steps that are being made
 * ready, or by painting everything again from a snapshot, with progress, and cancelled if a painter wants it.
 */
export class GoingBack {
  /** Makes the last steps of a painting that was opened ready to be taken back. */
  private ready: ReadyUndo | undefined;
  /** Steps before it that are kept and still to be read, so that they can be taken back at once. */
  private past: Opening['past'];
  /** When everything that had to be painted again on opening was there. */
  private openedAt = Infinity;
  private giveUp: (() => void) | undefined;

  constructor(private readonly host: Host) {}

  /** Makes the last steps ready to be taken back: as they were kept, and what was not kept by painting it again beside. */
  async opened(past: Opening['past']): Promise<void> {
    this.openedAt = performance.now();
    const { host } = this;
    const studio = host.studio();
    this.past = past;
    while (await this.putBackStep(studio)) continue;
    this.ready = new ReadyUndo(studio, host.keeping());
  }

  /** Goes on making steps ready, while nobody paints. @returns whether there is more to do */
  run(quiet: number, lastChange: number): boolean {
    return this.ready?.run(quiet, lastChange > this.openedAt) ?? false;
  }

  /** Gives up what is on its way. */
  cancel(): void {
    this.giveUp?.();
  }

  /** Begins an undo or redo that has to paint things again. @returns whether it is one */
  goesFar(command: Command): boolean {
    const { host } = this;
    const studio = host.studio();
    const walks = command.do === 'undo' || command.do === 'redo';
    const way = walks ? studio.timeline.farWay(command.do, command.hand === 'stays') : undefined;
    if (!way) return false;
    if (this.past && command.do === 'undo') {
      host.wait(this.putBackStep(studio).then(() => host.attempt(command)));
      return true;
    }
    if (command.do === 'undo' && this.ready?.left) {
      this.finishReady(this.ready, command);
      return true;
    }
    this.ready?.stop();
    this.paintAgain(way, command);
    return true;
  }

  /** Waits until one step more is put back that was kept. @returns whether there was one */
  private async putBackStep(studio: Studio): Promise<boolean> {
    try {
      if (this.past && !(await this.past.next()).done) return true;
    } catch {
      studio.timeline.awaitNoMore(); // what cannot be read is painted again
    }
    this.past = undefined;
    return false;
  }

  private paintAgain({ target, undone }: NonNullable<ReturnType<Timeline['farWay']>>, command: Command): void {
    const { host } = this;
    let cancelled = false;
    this.giveUp = () => (cancelled = true);
    host.wait(
      host
        .keeping()
        .rebuild(target)
        .then((found) => {
          const cancel = () => this.cancelled();
          this.giveUp = cancel;
          host.catchUp(
            new CatchUp(
              found.rest,
              (step) => void found.studio.apply(step),
              (done, total) => host.post({ say: 'progress', of: 'undo', done, total }),
              () => {
                this.end();
                host.arrive(found, undone, command);
              },
            ),
          );
          if (cancelled) cancel();
        }),
    );
  }

  /** The last steps are being made ready to be taken back: that is shorter than to begin anew. */
  private finishReady(ready: ReadyUndo, command: Command): void {
    const { host } = this;
    this.giveUp = () => this.cancelled();
    host.catchUp(
      new CatchUp(
        Array.from({ length: ready.left }, () => command),
        () => ready.paint(),
        (done, total) => host.post({ say: 'progress', of: 'undo', done, total }),
        () => {
          this.end();
          ready.arrive();
          host.attempt(command);
        },
      ),
    );
  }

  private end(): void {
    this.host.catchUp(undefined);
    this.giveUp = undefined;
    this.host.post({ say: 'progress', of: 'undo', done: 0, total: 0 });
  }

  private cancelled(): void {
    this.end();
    this.host.cancelled();
  }
}
