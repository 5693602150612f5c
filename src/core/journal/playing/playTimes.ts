import type { Command } from '@/core/commands/commands';
import type { Place } from './player';

/** How a history is played. */
export interface Pacing {
  /** Each stroke as long as any other, or as long as the hand took for it. */
  readonly by: 'stroke' | 'time';
  /** How long all of it lasts, s; where nothing is said, as it was painted, or eight strokes a second. */
  readonly seconds?: number;
}

/** Strokes of one length for each second, where nothing else is said. */
const STROKES_A_SECOND = 8;
/** A stroke that was painted quickly, and slowly, s: what is shorter is not seen, and nobody looks on longer. */
const SHORTEST = 0.15;
const LONGEST = 12;
/** From one stroke to the next, s. */
const REACHING = 0.25;
/** A time in which paint dries or water flows, s of playing and in strokes. */
const PAUSE = 0.6;
const PAUSE_STROKES = 2;
/** Waits up to this belong to painting: water flows meanwhile, and they are played as they are, at most so long, s. */
const SHORT_WAIT = 5;

/** When each command of a history is played, seconds from the beginning. */
export class PlayTimes {
  /** When each is over. */
  private readonly ends: Float64Array;

  constructor(
    private readonly history: readonly Command[],
    pacing: Pacing,
  ) {
    const lasting = pacing.by === 'stroke' ? evenly : asPainted;
    this.ends = new Float64Array(history.length);
    let end = 0;
    history.forEach((command, i) => {
      end += lasting(command);
      this.ends[i] = end;
    });
    if (pacing.seconds === undefined || end === 0) return;
    for (let i = 0; i < this.ends.length; i++) this.ends[i] *= pacing.seconds / end;
  }

  /** How long all of it lasts, s. */
  get total(): number {
    return this.ends.at(-1) ?? 0;
  }

  /** Where the history is at a time; what takes no time is done with what comes before it. */
  placeAt(seconds: number): Place {
    const { ends, history } = this;
    if (seconds <= 0) return { done: 0, readings: 0 };
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (ends[middle] <= seconds) low = middle + 1;
      else high = middle;
    }
    const command = history[low];
    if (command?.do !== 'stroke') return { done: low, readings: 0 };
    const begun = low > 0 ? ends[low - 1] : 0;
    const share = (seconds - begun) / (ends[low] - begun);
    return { done: low, readings: Math.floor(share * command.samples.length) };
  }

  /** When the history is at a place. */
  timeOf({ done, readings }: Place): number {
    const begun = done > 0 ? this.ends[Math.min(done, this.ends.length) - 1] : 0;
    const command = this.history[done];
    if (readings === 0 || command?.do !== 'stroke') return begun;
    return begun + ((this.ends[done] - begun) * readings) / command.samples.length;
  }
}

const passesTime = (command: Command): boolean => command.do === 'leave' || command.do === 'dry';

/** How long a command lasts, in strokes. What is done to paint on the slab is not seen on the canvas. */
function evenly(command: Command): number {
  if (command.do === 'stroke') return command.on ? 0 : 1 / STROKES_A_SECOND;
  if (command.do === 'wait') return Math.min(1, command.seconds / SHORT_WAIT) / STROKES_A_SECOND;
  return passesTime(command) ? PAUSE_STROKES / STROKES_A_SECOND : 0;
}

/** How long a command lasted, s. */
function asPainted(command: Command): number {
  if (command.do === 'stroke') {
    if (command.on) return 0;
    const { samples } = command;
    const seconds = (samples[samples.length - 1][0] - samples[0][0]) / 1000;
    return Math.min(LONGEST, Math.max(SHORTEST, seconds)) + REACHING;
  }
  if (command.do === 'wait') return command.seconds <= SHORT_WAIT ? command.seconds : PAUSE;
  return passesTime(command) ? PAUSE : 0;
}
