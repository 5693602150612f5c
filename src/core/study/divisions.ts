/** Divisions of a picture's rectangle that painters compose by, as lines in shares of its width and height. */

export type DivisionLine = readonly [x0: number, y0: number, x1: number, y1: number];

const upright = (x: number): DivisionLine => [x, 0, x, 1];
const level = (y: number): DivisionLine => [0, y, 1, y];
const DIAGONALS: readonly DivisionLine[] = [
  [0, 0, 1, 1],
  [0, 1, 1, 0],
];

/** Lines from both ends of the longer side at so many of the shorter one. @param aspect width over height */
function alongLonger(aspect: number, times: number): DivisionLine[] {
  const at = aspect >= 1 ? times / aspect : times * aspect;
  const line = aspect >= 1 ? upright : level;
  return at < 1 ? [line(at), line(1 - at)] : [];
}

/** A diagonal's reciprocals: the lines from the corners that meet it at right angles. @param aspect width over height */
function reciprocals(aspect: number): DivisionLine[] {
  const square = aspect * aspect;
  // from the upper right corner onto the falling diagonal: it meets the lower edge, or the left one where it is tall
  const half: DivisionLine[] =
    aspect >= 1
      ? [
          [1, 0, 1 - 1 / square, 1],
          [0, 1, 1 / square, 0],
        ]
      : [
          [1, 0, 0, square],
          [0, 1, 1, 1 - square],
        ];
  return [...half, ...half.map(([x0, y0, x1, y1]): DivisionLine => [1 - x0, y0, 1 - x1, y1])];
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Each kind of division, by its name. */
export const DIVISIONS = {
  thirds: { name: 'Thirds', lines: () => [1 / 3, 2 / 3].flatMap((t) => [upright(t), level(t)]) },
  halves: { name: 'Halves and quarters', lines: () => [0.25, 0.5, 0.75].flatMap((t) => [upright(t), level(t)]) },
  diagonals: { name: 'Diagonals', lines: (aspect: number) => [...DIAGONALS, ...reciprocals(aspect)] },
  golden: { name: 'Golden section', lines: () => [GOLDEN, 1 - GOLDEN].flatMap((t) => [upright(t), level(t)]) },
  squares: { name: 'Squares on the sides', lines: (aspect: number) => alongLonger(aspect, 1) },
  rootTwo: {
    name: 'Root two',
    lines: (aspect: number) => [...alongLonger(aspect, 1), ...alongLonger(aspect, Math.SQRT2)],
  },
  rootThree: {
    name: 'Root three',
    lines: (aspect: number) => [...alongLonger(aspect, 1), ...alongLonger(aspect, Math.sqrt(3))],
  },
} as const satisfies Record<string, { name: string; lines: (aspect: number) => readonly DivisionLine[] }>;

export type DivisionKind = keyof typeof DIVISIONS;
export const DIVISION_KINDS = Object.keys(DIVISIONS) as DivisionKind[];
