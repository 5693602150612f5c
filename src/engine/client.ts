import type { Adjustment } from '@/core/colour/adjust';
import type { Ageing } from '@/core/colour/ageing';
import type { OwnPaint } from '@/core/colour/ownPaints';
import type { HouseRules } from '@/core/commands/houseRules';
import type { Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import type { Light } from '@/core/picture/picture';
import type { Aid } from '@/core/picture/aids/aids';
import type { Looking } from '@/core/picture/aids/definition';
import type { View } from '@/core/picture/view';
import type { HandLog, HandMessage } from '@/engine/hand/handLog';
import type { FromWorker, ToWorker } from './protocol';
import { isAbout, type About, type Answers, type Question, type Reply } from './questions';

/** What the engine tells without being asked. */
export type Told = Exclude<FromWorker, { say: 'answer' | 'answering' | 'no-answer' }>;

/** Readings after which a stroke is ended and goes on as another: one of a quarter of an hour is no use to anybody. */
const LONG_STROKE = 100_000;
const LOOKING = 'Another tab is painting on this: here it can only be looked at.';

/** The page's end of the engine: says what the painter does, and passes on what comes back. */
export class EngineClient {
  private readonly worker: Worker;
  private readonly waiting = new Map<
    number,
    { reply: (reply: Reply) => void; reject: (error: Error) => void; far: (share: number) => void }
  >();
  private nextQuestion = 1;
  private serial = 0;
  /** Where what the hand says is written down; undefined while the painting is only looked at. */
  private log: HandLog | undefined;
  /** What was said before it was known which painting, and who may paint on it. */
  private early: (() => void)[] | undefined = [];
  private readings = 0;
  private strokeOn: 'slab' | undefined;

  constructor(private readonly told: (message: Told) => void) {
    this.worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = (event: MessageEvent<FromWorker>) => this.receive(event.data);
    this.worker.onerror = (event) =>
      this.told({ say: 'failed', why: event.message || 'The engine could not be started.' });
  }

  /** @param log where what the hand says is written down; without one the painting is only looked at */
  open(painting: string, log: HandLog | undefined): void {
    this.log = log;
    this.worker.postMessage({ say: 'open', painting, session: log?.session } satisfies ToWorker);
    const early = this.early ?? [];
    this.early = undefined;
    for (const again of early) again();
  }

  apply(command: Command): void {
    this.hand({ say: 'command', command });
  }

  beginStroke(on?: 'slab'): void {
    this.readings = 0;
    this.strokeOn = on;
    this.hand({ say: 'stroke-begin', on });
  }

  /** Gives up an undo that takes long. */
  cancel(): void {
    this.say({ say: 'cancel' });
  }

  /** Says how many device pixels there are for the slab. */
  lookAtSlab(width: number, height: number): void {
    this.say({ say: 'slab-view', width, height });
  }

  slabShown(): void {
    this.say({ say: 'slab-shown' });
  }

  /** From now on these rules hold. */
  setRules(rules: HouseRules, tubes: readonly string[], timeUp: boolean): void {
    this.say({ say: 'rules', rules, tubes, timeUp });
  }

  bringPaint(paint: OwnPaint): void {
    if (this.log || this.early) this.hand({ say: 'paint', paint });
    else this.say({ say: 'paint', paint });
  }

  addSamples(samples: number[][], newest: number): void {
    this.readings += samples.length;
    if (this.readings > LONG_STROKE) {
      this.endStroke();
      this.beginStroke(this.strokeOn);
    }
    this.hand({ say: 'stroke-samples', samples, newest });
  }

  endStroke(): void {
    this.hand({ say: 'stroke-end' });
  }

  /** Looks at the painting in another way. @returns the serial that the frames of this view will carry. */
  look(view: View, aid: Aid, how: Looking): number {
    this.say({ say: 'view', serial: ++this.serial, view, aid, how });
    return this.serial;
  }

  /** Shows how a layer would look, until something else is said. */
  tryLook(layer: string, look: { opacity?: number; adjust?: Adjustment }): void {
    this.say({ say: 'try', layer, ...look });
  }

  /** Leaves layers out of the picture, until it is said that none is. */
  without(layers: readonly string[]): void {
    this.say({ say: 'without', layers });
  }

  /** Shows the painting after some years; as it is where nothing is said. */
  age(ageing: Ageing | undefined): void {
    this.say({ say: 'age', ageing });
  }

  light(light: Light): void {
    this.say({ say: 'light', light });
  }

  /** Sets the clock of wet paper: 1 as on the wall, 0 held. */
  clock(pace: number): void {
    this.say({ say: 'clock', pace });
  }

  shown(): void {
    this.say({ say: 'shown' });
  }

  /**
   * Asks the engine something.
   * @param far is told how far the answer is, 0..1, where it takes long
   * @throws PainterError (as a rejection) with a sentence
   */
  ask<K extends About>(question: Question<K> & Question, far: (share: number) => void = () => {}): Promise<Answers[K]> {
    const id = this.nextQuestion++;
    return new Promise((resolve, reject) => {
      const reply = (given: Reply) => {
        if (isAbout<K>(given, question.of)) resolve(given.answer);
        else reject(new Error(`"${question.of}" was answered with "${given.of}".`));
      };
      this.waiting.set(id, { reply, reject, far });
      this.say({ say: 'ask', id, question });
    });
  }

  /** Ends the engine. Resolves when what the hand said is written down. */
  close(): Promise<void> {
    this.worker.terminate();
    for (const { reject } of this.waiting.values()) reject(new PainterError('The painting was closed.'));
    this.waiting.clear();
    return this.log?.close() ?? Promise.resolve();
  }

  private say(message: ToWorker): void {
    if (this.early) this.early.push(() => this.say(message));
    else this.worker.postMessage(message);
  }

  /** Says what the hand does, and writes it down. */
  private hand(message: HandMessage): void {
    if (this.early) this.early.push(() => this.hand(message));
    else if (this.log) this.say({ ...message, said: this.log.say(message) });
    else if (message.say === 'command' || message.say === 'stroke-begin') this.told({ say: 'refused', why: LOOKING });
  }

  private receive(message: FromWorker): void {
    if (message.say === 'answering') {
      this.waiting.get(message.id)?.far(message.share);
      return;
    }
    if (message.say !== 'answer' && message.say !== 'no-answer') {
      if (message.say === 'kept') this.log?.acknowledge(message.said);
      this.told(message);
      return;
    }
    const asked = this.waiting.get(message.id);
    this.waiting.delete(message.id);
    if (message.say === 'no-answer') asked?.reject(new PainterError(message.why));
    else asked?.reply(message);
  }
}
