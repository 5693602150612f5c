/** Whether everything is to be measured that can be (`npm run measure:all`), and not what a check has time for. */
export const THOROUGH = typeof process !== 'undefined' && process.env.MEASURE === 'all';

/** How often a property is tried: so often where there is time, a quarter of it in a check, with other seeds each time. */
export const runs = (most: number): number => (THOROUGH ? most : Math.ceil(most / 4));

/** The choices that are tried: all of them, or in a check the first so many. */
export const first = <T>(count: number, choices: readonly T[]): readonly T[] =>
  THOROUGH ? choices : choices.slice(0, count);

/** What of a list is tried with the nth of other things: all of it, or in a check one, each in its turn. */
export const inTurn = <T>(choices: readonly T[], n: number): readonly T[] =>
  THOROUGH ? choices : [choices[n % choices.length]];
