/** How a row of things is cut into parts that are alike within. */
export interface Cutting {
  /** Most parts, and how many things each has at the least. */
  readonly most: number;
  readonly least: number;
  /** A cut must take away this share of all that is unlike before the first. */
  readonly gain: number;
}

/**
 * Cuts a row of things where they change: again and again the part in which a cut makes most alike (binary segmentation;
 * Scott and Knott 1974). What is unlike in a part is the sum of squared distances from its mean.
 * @param features columns, one number a thing
 * @returns where each part begins, ascending, the first at 0; empty where there is nothing
 */
export function segments(features: readonly ArrayLike<number>[], { most, least, gain }: Cutting): readonly number[] {
  const count = features[0]?.length ?? 0;
  if (count === 0) return [];
  const columns = features.map(sums);
  const unlike = (from: number, until: number): number =>
    columns.reduce((sum, { once, squared }) => {
      const mean = (once[until] - once[from]) / (until - from);
      return sum + squared[until] - squared[from] - mean * (once[until] - once[from]);
    }, 0);
  const enough = gain * unlike(0, count);

  /** The cut of a part that takes most away. */
  const bestCut = (from: number, until: number) => {
    const whole = unlike(from, until);
    let best = { at: -1, takes: 0 };
    for (let at = from + least; at <= until - least; at++) {
      const takes = whole - unlike(from, at) - unlike(at, until);
      if (takes > best.takes) best = { at, takes };
    }
    return { ...best, until };
  };

  const parts = new Map([[0, bestCut(0, count)]]);
  while (parts.size < most) {
    const [from, cut] = [...parts].reduce((a, b) => (b[1].takes > a[1].takes ? b : a));
    if (cut.at < 0 || cut.takes < enough) break;
    parts.set(from, bestCut(from, cut.at));
    parts.set(cut.at, bestCut(cut.at, cut.until));
  }
  return [...parts.keys()].sort((a, b) => a - b);
}

/** Running sums of a column and of its squares. */
function sums(column: ArrayLike<number>): { readonly once: Float64Array; readonly squared: Float64Array } {
  const once = new Float64Array(column.length + 1);
  const squared = new Float64Array(column.length + 1);
  for (let i = 0; i < column.length; i++) {
    once[i + 1] = once[i] + column[i];
    squared[i + 1] = squared[i] + column[i] * column[i];
  }
  return { once, squared };
}
