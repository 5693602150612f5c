import { decodeSrgb, encodeSrgb, labToLinear, linearToLab, type Triple } from '@/core/colour/colorimetry';
import type { Raster } from '@/core/formats/png';
import { partOf, type Step } from '@/core/formats/step';
import { PaperInks, PRINT_PAPERS, type PaperId } from './printPapers';

/** A picture as a paper will show it. */
export interface PrintProof {
  readonly raster: Raster;
  /** Share of the picture that is out of the paper's reach, and how far the farthest of it is (CIEDE2000). */
  readonly out: number;
  readonly farthest: number;
}

/** A colour that is off by more is out of reach: a difference that is seen side by side. */
export const OUT_OF_REACH = 3;

/** Points of the table along red, green and blue. */
const SIDE = 25;
/** Stripes that mark what is out of reach, pixels: their period, and how much of it is drawn. */
const STRIPE = 6;
const DRAWN = 2;
/** Rows that are worked out at a time. */
const ROWS = 32;

/** What a paper makes of every colour of a screen: CIELAB that comes out, and how far it is off. */
interface ProofTable {
  readonly labs: readonly Triple[];
  readonly off: Float32Array;
}

const tables = new Map<PaperId, ProofTable>();

/** The table of a paper, worked out once. */
function proofTable(paper: PaperId, inks: PaperInks, step: Step): ProofTable {
  const known = tables.get(paper);
  if (known) return known;
  const off = new Float32Array(SIDE * SIDE * SIDE);
  let near: Triple | undefined;
  const labs = Array.from(off, (_, i) => {
    if (i % (SIDE * SIDE) === 0) step(i / off.length);
    const places = [i % SIDE, Math.floor(i / SIDE) % SIDE, Math.floor(i / SIDE / SIDE)];
    const rgb = places.map((v) => decodeSrgb(v / (SIDE - 1))) as Triple;
    const printed = inks.printed(inks.wanted(linearToLab(rgb)), near);
    near = printed.inks;
    off[i] = printed.off;
    return printed.lab;
  });
  const table = { labs, off };
  tables.set(paper, table);
  return table;
}

/**
 * A picture as a paper will show it.
 * @param raster three channels of 8 bits, sRGB
 * @param asPaper whether the paper's own white and its darkest are seen, else they are taken for white and black
 * @param marked whether what is out of reach is striped
 */
export function printProof(
  { width, height, data }: Raster,
  paper: PaperId,
  { asPaper, marked }: { readonly asPaper: boolean; readonly marked: boolean },
  step: Step = () => {},
): PrintProof {
  const inks = new PaperInks(PRINT_PAPERS[paper]);
  const { labs, off } = proofTable(paper, inks, partOf(step, 0, 0.5));
  const light = Float32Array.from(labs.flatMap((lab) => labToLinear(asPaper ? lab : inks.asScreen(lab))));
  const out = new Uint8Array(width * height * 3);
  let beyond = 0;
  let farthest = 0;
  const found: Triple = [0, 0, 0];
  for (let y = 0; y < height; y++) {
    if (y % ROWS === 0) step((1 + y / height) / 2);
    for (let x = 0; x < width; x++) {
      const at = 3 * (y * width + x);
      const places = [0, 1, 2].map((c) => (data[at + c] / 255) * (SIDE - 1));
      const [r, g, b] = places.map((v) => Math.min(SIDE - 2, Math.floor(v)));
      let far = 0;
      found.fill(0);
      for (let corner = 0; corner < 8; corner++) {
        const [dr, dg, db] = [corner & 1, (corner >> 1) & 1, corner >> 2];
        const share =
          (dr ? places[0] - r : 1 + r - places[0]) *
          (dg ? places[1] - g : 1 + g - places[1]) *
          (db ? places[2] - b : 1 + b - places[2]);
        if (share === 0) continue;
        const i = ((b + db) * SIDE + g + dg) * SIDE + r + dr;
        far += share * off[i];
        for (let c = 0; c < 3; c++) found[c] += share * light[3 * i + c];
      }
      if (far > OUT_OF_REACH) {
        beyond++;
        if (far > farthest) farthest = far;
        if (marked && (x + y) % STRIPE < DRAWN) {
          const dark = found[0] + found[1] + found[2] > 0.6 ? 0.05 : 0.9;
          found.fill(dark);
        }
      }
      for (let c = 0; c < 3; c++) out[at + c] = Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, found[c]))));
    }
  }
  return { raster: { width, height, channels: 3, data: out }, out: beyond / (width * height), farthest };
}

/** What there is to say of a proof. */
export function proofSays({ out, farthest }: PrintProof, paper: PaperId): string {
  const { name } = PRINT_PAPERS[paper];
  if (out === 0) return `${name}: every colour is within reach.`;
  const share = out < 0.01 ? 'Less than 1 %' : `${Math.round(100 * out)} %`;
  return `${name}: ${share} of the picture is out of reach, by up to Delta E ${Math.round(farthest)}.`;
}
