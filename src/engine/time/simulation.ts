import type { Change } from '@/core/commands/change';
import type { Command } from '@/core/commands/commands';
import { Flow } from '@/core/flow/flowing';
import type { Studio } from '@/core/journal/studio';
import { WaterClock } from './waterClock';

/** How often water is looked at while it flows, ms. A step or two are made at once, so that a pen need not wait. */
const FLOW_MS = 25;
const FLOW_TURN_MS = 8;
/** A hand that rests for so long lets time pass in its stroke, ms. */
const REST_MS = 60;
/** How often the painting's own clock is set forward while something dries by it, ms. */
const TICK_MS = 10_000;
/** Quiet time after which time that has passed on wet paper is written down, ms. */
const WAIT_QUIET_MS = 2500;

/** What the simulation says to the host. */
interface Host {
  /** Paint has changed, or water has moved, by a command or without one. */
  readonly changed: (change: Pick<Change, 'rect'>) => void;
  readonly flowed: (tiles: ReadonlySet<number>) => void;
  /** A command that time has written. */
  readonly keep: (command: Command) => void;
  /** What the tools and layers are like has changed. */
  readonly tell: () => void;
  /** Another turn is wanted. */
  readonly plan: () => void;
  readonly dried: () => void;
}

/**
 * Time on the wall, as the painting feels it: water that flows while the painter looks on, acrylic that dries, a hand that
 * rests in a stroke.
 */
export class Simulation {
  readonly clock = new WaterClock();
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** The last reading of the stroke in the air, and when it came. */
  private resting: { sample: readonly number[]; at: number } | undefined;
  /** When the painting's own clock was last set forward, and a wait last written down, ms. */
  private ticked = performance.now();
  private wroteWait = 0;

  constructor(private readonly host: Host) {}

  // --- water

  /**
   * Lets water flow by the clock while the painter looks on. What has flowed becomes a `wait` of the journal before
   * anything else is done. In a stroke with water time passes by the readings of the pen, for a resting hand as well.
   * @param held whether no time passes now @returns whether a reading was added for a hand that rests
   */
  flow(studio: Studio, held: boolean): boolean {
    const now = performance.now();
    const { time } = studio;
    if (!time.hasWater) {
      this.clock.set(now);
      this.endWait(studio);
      return false;
    }
    if (studio.strokeInAir) {
      const rested = this.rest(studio, now);
      this.clock.set(now);
      this.later();
      return rested;
    }
    if (this.clock.pace === 0 || held) {
      this.clock.set(now);
      return false;
    }
    const { wetTiles } = time;
    const due = this.clock.due(now, wetTiles);
    let steps = 0;
    while (steps < due && performance.now() - now < FLOW_TURN_MS) {
      time.advance(1);
      steps++;
    }
    this.clock.ran(steps, performance.now() - now, wetTiles);
    this.host.flowed(time.takeFlowed());
    if (steps < due) this.host.plan();
    if (time.hasWater) this.later();
    else {
      this.host.dried();
      this.endWait(studio);
      this.host.tell();
    }
    return false;
  }

  /** Looks at the water again after a while. */
  later(): void {
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      this.host.plan();
    }, FLOW_MS);
  }

  /** Writes down the time that has passed on wet paper. */
  endWait(studio: Studio): void {
    const waited = studio.endWait();
    if (!waited) return;
    this.host.changed({ rect: waited.change.rect });
    this.host.keep(waited.command);
  }

  // --- in a stroke

  /** How fast water goes in a stroke that is about to be made: a tool that lets no time pass has no need of it. */
  strokePace(studio: Studio): number | undefined {
    return studio.time.passesInStrokes ? this.clock.strokePace(studio.time.wetTiles) : undefined;
  }

  /** The pen was read in a stroke; undefined when a stroke begins or ends. */
  read(sample: readonly number[] | undefined): void {
    this.resting = sample && { sample, at: performance.now() };
  }

  private rest(studio: Studio, now: number): boolean {
    const { resting } = this;
    if (!studio.time.passesInStrokes || !resting || now - resting.at <= REST_MS) return false;
    const [t, ...rest] = resting.sample;
    const sample = [t + now - resting.at, ...rest];
    this.resting = { sample, at: now };
    studio.addSample(sample);
    return true;
  }

  /** Time that water took in a stroke, ms. */
  waterTime(studio: Studio, { samples, pace = 1 }: Extract<Command, { do: 'stroke' }>): number {
    if (!studio.time.passesInStrokes) return 0;
    const seconds = (samples[samples.length - 1][0] - samples[0][0]) / 1000;
    return this.clock.cost(Flow.steps(seconds * pace), studio.time.wetTiles);
  }

  // --- paint that dries by the clock

  /**
   * Sets the painting's clock forward by the time that has passed, where paint dries by it (acrylic). It stands still
   * while something that was taken back can be done again, so that this stays possible.
   */
  tick(studio: Studio): void {
    const seconds = Math.round((performance.now() - this.ticked) / 100) / 10;
    if (seconds < 1) return;
    this.ticked = performance.now();
    // where there is water, its clock goes for everything
    if (!studio.time.driesByTheClock || studio.timeline.canRedo || studio.time.hasWater) return;
    // a painter who went away comes back to what an hour has made of it
    const command: Command = { do: 'wait', seconds: Math.min(seconds, 3599) };
    this.host.changed(studio.apply(command));
    this.host.keep(command);
    this.host.tell();
  }

  /** What is done now and then when nobody paints. @param quiet time since the last change, ms */
  idle(studio: Studio, quiet: number, looking: boolean): void {
    const now = performance.now();
    if (now - this.ticked > TICK_MS) {
      this.endWait(studio);
      if (!looking) this.tick(studio);
    }
    if (studio.time.hasWater && quiet > WAIT_QUIET_MS && now - this.wroteWait > TICK_MS) {
      this.wroteWait = now;
      this.endWait(studio);
    }
  }
}
