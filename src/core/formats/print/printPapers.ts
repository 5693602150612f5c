import { deltaE2000 } from '@/core/colour/deltaE2000';
import { labToXyz, xyzToLab, type Triple } from '@/core/colour/colorimetry';

/**
 * Papers as a printer sees them. The colours that inks give on a paper are those of its eight Neugebauer primaries (bare
 * paper, three inks, their overprints) and everything between: a halftone mixes the light of its dots, more evenly where
 * the paper scatters it from dot to dot (Yule and Nielsen, n = 2: Yule, J. A. C. and Nielsen, W. J., TAGA 1951; Viggiano,
 * J. A. S., TAGA 1985, for the form with primaries). The darkest primary is what the black ink reaches.
 *
 * Offset: CIELAB (D50, taken as relative to white here) of solids after ISO 12647-2:2013, rounded. Ink jet on cotton and baryta: chosen by us as typical of
 * pigment inks on such papers, not measured; a print shop's own profile knows better.
 */
export interface PrintPaper {
  readonly name: string;
  readonly says: string;
  /** CIELAB of the bare paper, cyan, magenta, yellow, red (m + y), green (c + y), blue (c + m), and the darkest. */
  readonly primaries: readonly [Triple, Triple, Triple, Triple, Triple, Triple, Triple, Triple];
}

export const PRINT_PAPERS = {
  cotton: {
    name: 'Matte cotton, ink jet',
    says: 'Soft and without shine; darks are grey.',
    primaries: [
      [96, 0, 2],
      [56, -31, -48],
      [49, 66, -4],
      [88, -6, 84],
      [50, 60, 38],
      [51, -55, 22],
      [31, 14, -46],
      [18, 0, 1],
    ],
  },
  baryta: {
    name: 'Satin baryta, ink jet',
    says: 'Deep darks and strong colours, a slight shine.',
    primaries: [
      [96, 0, -1],
      [52, -36, -55],
      [45, 76, -6],
      [90, -7, 102],
      [47, 72, 54],
      [49, -70, 30],
      [22, 26, -62],
      [4, 0, 0],
    ],
  },
  coated: {
    name: 'Coated, offset',
    says: 'Books, catalogues, posters.',
    primaries: [
      [95, 1, -4],
      [56, -36, -51],
      [48, 75, -4],
      [89, -4, 93],
      [48, 68, 47],
      [50, -65, 27],
      [25, 20, -46],
      [12, 0, 0],
    ],
  },
  uncoated: {
    name: 'Uncoated, offset',
    says: 'Cards and letters: paler, everything a little grey.',
    primaries: [
      [93, 1, -3],
      [59, -25, -44],
      [55, 60, -2],
      [89, -3, 76],
      [53, 57, 27],
      [54, -43, 14],
      [39, 9, -30],
      [31, 1, 1],
    ],
  },
} as const satisfies Record<string, PrintPaper>;
export type PaperId = keyof typeof PRINT_PAPERS;

/** What a paper makes of a colour. */
export interface Printed {
  /** CIELAB that comes nearest, of the paper in its own light. */
  readonly lab: Triple;
  /** How far that is from what was wanted of it, CIEDE2000. */
  readonly off: number;
  /** Shares of cyan, magenta and yellow. */
  readonly inks: Triple;
}

/** Steps of the search, and how far an ink is varied to see what it does. */
const STEPS = 24;
const NUDGE = 1e-4;

/** The inks of a paper: finds, for a colour, the halftone that comes nearest to it. */
export class PaperInks {
  /** Square roots of the XYZ of the primaries: with n = 2 they are what dots mix. */
  private readonly roots: readonly Triple[];

  constructor(readonly paper: PrintPaper) {
    this.roots = paper.primaries.map((lab) => labToXyz(lab).map(Math.sqrt) as Triple);
  }

  /** CIELAB of a halftone. @param inks shares of cyan, magenta and yellow, 0..1 */
  labOf([c, m, y]: Triple): Triple {
    const shares = [
      (1 - c) * (1 - m) * (1 - y),
      c * (1 - m) * (1 - y),
      (1 - c) * m * (1 - y),
      (1 - c) * (1 - m) * y,
      (1 - c) * m * y,
      c * (1 - m) * y,
      c * m * (1 - y),
      c * m * y,
    ];
    const xyz: Triple = [0, 0, 0];
    for (let k = 0; k < 3; k++) {
      let root = 0;
      for (let p = 0; p < 8; p++) root += shares[p] * this.roots[p][k];
      xyz[k] = root * root;
    }
    return xyzToLab(xyz);
  }

  /**
   * A colour as it is wanted of this paper: its white is the paper's, its black the darkest ink, what lies between is
   * spread evenly in light (relative, with black point compensation, as ICC.1:2022 has it).
   */
  wanted(lab: Triple): Triple {
    const { primaries } = this.paper;
    const white = labToXyz(primaries[0]);
    const black = labToXyz(primaries[7]);
    const ideal = labToXyz([100, 0, 0]);
    return xyzToLab(labToXyz(lab).map((v, k) => black[k] + (v / ideal[k]) * (white[k] - black[k])) as Triple);
  }

  /** The way back: the paper's white taken for white, its darkest for black. */
  asScreen(lab: Triple): Triple {
    const { primaries } = this.paper;
    const white = labToXyz(primaries[0]);
    const black = labToXyz(primaries[7]);
    const ideal = labToXyz([100, 0, 0]);
    return xyzToLab(labToXyz(lab).map((v, k) => (ideal[k] * (v - black[k])) / (white[k] - black[k])) as Triple);
  }

  /**
   * What comes out where a colour is wanted, CIELAB: the nearest in CIELAB, found by damped least squares from some sides.
   * @param near inks of a colour that is near, where that is known
   */
  printed(wanted: Triple, near?: Triple): Printed {
    let best: Triple = [0, 0, 0];
    let least = Infinity;
    for (const start of near ? [near, ...STARTS.slice(0, 2)] : STARTS) {
      const inks = this.search(wanted, start);
      const distance = apart(this.labOf(inks), wanted);
      if (distance < least) [best, least] = [inks, distance];
      if (least < 1e-3) break;
    }
    const lab = this.labOf(best);
    return { lab, off: deltaE2000(lab, wanted), inks: best };
  }

  private search(wanted: Triple, start: Triple): Triple {
    let inks = start;
    let lab = this.labOf(inks);
    let distance = apart(lab, wanted);
    let damping = 1;
    for (let step = 0; step < STEPS && distance > 1e-4 && damping < 1e9; step++) {
      const columns = [0, 1, 2].map((k) => {
        const way = inks[k] > 0.5 ? -NUDGE : NUDGE;
        const moved = inks.slice() as Triple;
        moved[k] += way;
        const other = this.labOf(moved);
        return other.map((v, i) => (v - lab[i]) / way);
      });
      const residual = wanted.map((v, i) => v - lab[i]);
      // an ink that is at its end, and would have to go farther, stays there
      const pull = columns.map((column) => column[0] * residual[0] + column[1] * residual[1] + column[2] * residual[2]);
      const free = [0, 1, 2].filter((k) => !((inks[k] <= 0 && pull[k] < 0) || (inks[k] >= 1 && pull[k] > 0)));
      if (free.length === 0) break;
      const moves = solve(columns, pull, free, damping);
      const next = inks.map((v, k) => Math.min(1, Math.max(0, v + moves[k]))) as Triple;
      const there = this.labOf(next);
      const far = apart(there, wanted);
      if (far < distance) {
        damping /= 8;
        if (distance - far < 1e-7) break;
        [inks, lab, distance] = [next, there, far];
      } else damping *= 6;
    }
    return inks;
  }
}

/** Where the search begins: pale, middle, dark, and one strong corner of each pair of inks. */
const STARTS: readonly Triple[] = [
  [0.4, 0.4, 0.4],
  [0.9, 0.5, 0.1],
  [0.1, 0.9, 0.5],
  [0.5, 0.1, 0.9],
  [0.9, 0.9, 0.9],
];

/** Squared distance in CIELAB. */
const apart = (a: Triple, b: Triple): number => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2;

/** A damped step of least squares in the inks that are free. @param columns what each ink does to L*, a*, b* */
function solve(columns: number[][], pull: number[], free: readonly number[], damping: number): Triple {
  const n = free.length;
  const rows = free.map((i, r) => {
    const row = free.map((j) => columns[i].reduce((sum, v, k) => sum + v * columns[j][k], 0));
    row[r] += damping;
    return [...row, pull[i]];
  });
  for (let i = 0; i < n; i++) {
    for (let r = i + 1; r < n; r++) {
      const by = rows[r][i] / rows[i][i];
      for (let c = i; c <= n; c++) rows[r][c] -= by * rows[i][c];
    }
  }
  const out: Triple = [0, 0, 0];
  for (let i = n - 1; i >= 0; i--) {
    let sum = rows[i][n];
    for (let c = i + 1; c < n; c++) sum -= rows[i][c] * out[free[c]];
    out[free[i]] = sum / rows[i][i];
  }
  return out;
}
