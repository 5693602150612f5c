/** Parts of tubes. */
export type Parts = Readonly<Record<string, number>>;

/** How many colours can be stepped back through. */
const MOST = 8;

/** Colours that have been in hand, the oldest first, and which of them is in hand now. */
export interface RecentColours {
  readonly all: readonly Parts[];
  readonly at: number;
}

export const NO_COLOURS: RecentColours = { all: [], at: -1 };

const same = (a: Parts, b: Parts): boolean => {
  const tubes = Object.keys(a);
  return tubes.length === Object.keys(b).length && tubes.every((id) => a[id] === b[id]);
};

/**
 * A colour is taken in hand. What came after the one that was stepped back to stays: a colour that was mixed is lost by
 * no choice, but by eight later ones.
 */
export function taken({ all, at }: RecentColours, colour: Parts): RecentColours {
  if (at >= 0 && same(all[at], colour)) return { all, at };
  const next = [...all.filter((other) => !same(other, colour)), colour].slice(-MOST);
  return { all: next, at: next.length - 1 };
}

/** The colour before or after the one in hand; the same where there is none. */
export function stepped({ all, at }: RecentColours, by: 1 | -1): RecentColours {
  return all[at + by] ? { all, at: at + by } : { all, at };
}
