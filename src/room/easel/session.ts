import { EngineClient } from '@/engine/client';
import { HandLog, type HandNews } from '@/engine/hand/handLog';
import { WorkerHandStore } from '@/engine/hand/handThread';
import { hold, takeOver, whenAsked, type Hold } from '@/engine/hand/holding';
import { nextSession } from '@/engine/keeping/shelf';

/** Longest time that a tab which is asked for its painting waits until everything is stored, ms. */
const LETTING_GO_MS = 15_000;

/** Who paints: this tab, another one while this looks on, this one after it has been let go; or it is not known yet. */
export type Painter = 'opening' | 'here' | 'elsewhere' | 'asking';

interface Room {
  readonly told: ConstructorParameters<typeof EngineClient>[0];
  readonly kept: (news: HandNews) => void;
  readonly painter: (painter: Painter) => void;
  /** Another engine is there from now on; nothing of the one before holds. */
  readonly begun: (engine: EngineClient) => void;
}

/**
 * A painting on the easel of this tab: its engine, what is written down of the hand, and which tab may paint. A tab that
 * does not hold the painting looks at it, and can ask for it; the one that is asked finishes, stores everything, lets go
 * and looks on.
 */
export class Session {
  private engine: EngineClient | undefined;
  private held: Hold | undefined;
  private stopListening = () => {};
  private readonly closing = new AbortController();
  private log: HandLog | undefined;
  private readonly leaving = () => this.log?.flush();

  constructor(
    private readonly painting: string,
    private readonly room: Room,
  ) {
    window.addEventListener('pagehide', this.leaving);
    this.beginWith(hold(painting));
  }

  /** Takes the painting over from the tab that holds it. */
  askFor(): void {
    this.room.painter('asking');
    void takeOver(this.painting, this.closing.signal).then((held) => {
      if (held) this.beginWith(Promise.resolve(held));
    });
  }

  close(): void {
    this.closing.abort();
    window.removeEventListener('pagehide', this.leaving);
    this.end();
  }

  private end(): void {
    this.stopListening();
    const { held } = this;
    // the painting is another tab's only when nothing more is written to it here
    void this.engine?.close().then(() => held?.release());
    this.engine = undefined;
    this.held = undefined;
  }

  /** @param waiting the hold, or undefined when another tab has it */
  private beginWith(waiting: Promise<Hold | undefined>): void {
    this.begin(waiting).catch(() => this.room.told({ say: 'failed', why: 'This browser’s storage cannot be read.' }));
  }

  private async begin(waiting: Promise<Hold | undefined>): Promise<void> {
    const { room, painting } = this;
    void this.engine?.close();
    const engine = new EngineClient(room.told);
    this.engine = engine;
    room.begun(engine);
    const held = await waiting;
    if (this.closing.signal.aborted || this.engine !== engine) {
      held?.release();
      return;
    }
    this.held = held;
    this.log = undefined;
    if (held) {
      const log = new HandLog(painting, await nextSession(painting), new WorkerHandStore(), room.kept);
      await log.takeOver();
      this.log = log;
      this.stopListening = whenAsked(painting, () => void this.letGo());
    }
    if (this.engine !== engine) return;
    engine.open(painting, this.log);
    room.painter(held ? 'here' : 'elsewhere');
  }

  private async letGo(): Promise<void> {
    const { engine } = this;
    if (!engine) return;
    engine.endStroke();
    const tooLong = new Promise((resolve) => setTimeout(resolve, LETTING_GO_MS));
    await Promise.race([engine.ask({ of: 'kept' }), tooLong]).catch(() => {});
    if (this.engine !== engine) return;
    this.end();
    if (!this.closing.signal.aborted) this.beginWith(Promise.resolve(undefined));
  }
}
