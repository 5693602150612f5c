import type { Command } from '@/core/commands/commands';
import { changesPainting } from '@/core/journal/history';
import type { Studio } from '@/core/journal/studio';
import type { Keeping, Rebuilding } from '@/engine/keeping/keeping';

/** Steps that are made ready, and commands beyond which that would take too long. */
const STEPS = 20;
const MOST_COMMANDS = 160;
/**
 * Quiet time before it is begun, which takes a moment, and before each command is done, ms: neither is interrupted. On
 * a painting that is only looked at yet, it is begun with the first of them.
 */
const BEGIN_QUIET_MS = 1500;
const QUIET_MS = 400;

/**
 * After a painting was opened, makes its last steps ready to be taken back at once: they are painted again, beside it and
 * while nothing else is to be done, and the painting takes over what lay under each of them. Nothing is seen of it.
 */
export class ReadyUndo {
  private state: 'to begin' | 'finding' | 'painting' | 'done' = 'to begin';
  private beside: Rebuilding | undefined;
  private rest: readonly Command[] = [];

  constructor(
    private readonly studio: Studio,
    private readonly keeping: Keeping,
  ) {}

  /**
   * Goes on a little.
   * @param quiet time since the last change, ms @param touched whether anything has been done since it was opened
   * @returns whether more is to be done now
   */
  run(quiet: number, touched = true): boolean {
    if (this.state === 'done' || this.state === 'finding' || quiet < QUIET_MS) return false;
    if (this.state === 'to begin') {
      if (!touched || quiet >= BEGIN_QUIET_MS) this.begin();
      return false;
    }
    this.paint();
    if (this.left > 0) return true;
    this.arrive();
    return false;
  }

  /** Commands that are still to be painted beside; nothing where none are, or where it has not come so far. */
  get left(): number {
    return this.state === 'painting' ? this.rest.length : 0;
  }

  /** Paints the next of them. */
  paint(): void {
    const [next, ...rest] = this.rest;
    this.rest = rest;
    try {
      if (next) this.beside?.studio.apply(next);
    } catch {
      // nothing here is worth stopping the painter: it is painted when it is asked for, or refused there
      this.stop();
    }
  }

  /** The painting takes over what has been painted beside it. */
  arrive(): void {
    if (this.state === 'painting') this.studio.timeline.adoptPast(this.beside!.studio.timeline);
    this.stop();
  }

  /** What was painted beside is of no use any more. */
  stop(): void {
    this.state = 'done';
    this.beside = undefined;
  }

  private begin(): void {
    const history = this.studio.timeline.beforeKept;
    if (history.length === 0 || this.studio.timeline.pastKept(STEPS).length === STEPS) this.stop();
    // water that flows makes another painting of it every moment
    if (this.state === 'done' || this.studio.time.hasWater) return;
    this.state = 'finding';
    const enough = (left: readonly Command[]) => left.filter(changesPainting).length >= STEPS;
    this.keeping.rebuild(history, enough).then(
      (found) => {
        if (this.state !== 'finding') return;
        if (found.rest.length === 0 || found.rest.length > MOST_COMMANDS) {
          this.stop();
          return;
        }
        this.beside = found;
        this.rest = found.rest;
        this.state = 'painting';
      },
      // then it is painted when it is asked for, or refused there
      () => this.stop(),
    );
  }
}
