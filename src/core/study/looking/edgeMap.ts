import { greyOfValue, isThere, valueOf, type CodeImage } from './image';
import type { LostAndFound } from './lostAndFound';

/** What found, soft and lost are drawn in, sRGB: also told apart by their shape - a line, hatching, dots. */
export const EDGE_TINTS = { found: [168, 52, 28], soft: [36, 110, 128], lost: [20, 19, 18] } as const;

const codeOf = ([r, g, b]: readonly [number, number, number]): number => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
const FOUND = codeOf(EDGE_TINTS.found);
const SOFT = codeOf(EDGE_TINTS.soft);
const LOST = codeOf(EDGE_TINTS.lost);
const LIGHT = codeOf([244, 242, 236]);

/** Distance between dots, pixels. */
const DOTS = 6;
/** Widest band that a soft edge is drawn as, pixels. */
const MOST_BAND = 14;

/**
 * A picture in pale greys, with its edges over it: found ones as a line, soft ones as a hatched band as wide as they
 * are, lost ones as dots.
 * @param left where the picture lies in what is seen, so that patterns stand still when a part is drawn anew
 */
export function edgeMap(image: CodeImage, { edges, kinds, lost }: LostAndFound, left = 0, top = 0): Uint32Array {
  const { codes, width, height, mmPerPx } = image;
  const out = codes.map((code) => (isThere(code) ? greyOfValue(5 + 0.42 * valueOf(code)) : code));
  const put = (x: number, y: number, code: number) => {
    if (x < 0 || y < 0 || x >= width || y >= height) return;
    const i = y * width + x;
    if (isThere(codes[i])) out[i] = code;
  };
  for (let k = 0; k < edges.count; k++) {
    if (kinds[k] !== 'soft') continue;
    const band = Math.min(MOST_BAND, edges.width[k] / mmPerPx);
    const run = Math.ceil(edges.length[k] / mmPerPx);
    for (let across = -band / 2; across <= band / 2; across++) {
      for (let along = 0; along < run; along++) {
        const x = Math.floor(edges.x[k] + across * edges.nx[k] - (along - run / 2) * edges.ny[k]);
        const y = Math.floor(edges.y[k] + across * edges.ny[k] + (along - run / 2) * edges.nx[k]);
        if ((x + left + y + top) % 4 < 2) put(x, y, SOFT);
      }
    }
  }
  // one dot in each square of a net that stands still
  const snap = (at: number, from: number) => Math.floor((at + from) / DOTS) * DOTS + DOTS / 2 - from;
  for (const place of lost) {
    const [x, y] = [snap(place.x, left), snap(place.y, top)];
    for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) put(x + dx, y + dy, dx || dy ? LIGHT : LOST);
  }
  for (let k = 0; k < edges.count; k++) {
    if (kinds[k] !== 'found') continue;
    const [x, y] = [Math.floor(edges.x[k] - 0.5), Math.floor(edges.y[k] - 0.5)];
    for (let d = 0; d < 4; d++) put(x + (d & 1), y + (d >> 1), FOUND);
  }
  return out;
}
