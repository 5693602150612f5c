import { describe, expect, it, test } from 'vitest';
import { labToLinear, linearToBytes, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { EDGE_TINTS, edgeMap } from './edgeMap';
import { findEdges, type Edges } from './edges';
import { labOf, type CodeImage } from './image';
import { edgeReport, lostAndFound, type EdgeMeasure } from './lostAndFound';

const codeOfLab = (lab: Triple): number => {
  const [r, g, b] = linearToBytes(labToLinear(lab)).map((v) => Math.max(0, Math.min(255, Math.round(v))));
  return (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
};

/** Share of a Gaussian below x deviations (Abramowitz and Stegun 7.1.26). */
function below(x: number): number {
  const z = Math.abs(x) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * z);
  const erf =
    1 -
    t *
      (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) *
      Math.exp(-z * z);
  return x > 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

/** Two colours with a Gaussian edge between them, drawn with 5 x 5 samples a pixel. */
function edge(
  widthMm: number,
  from: Triple,
  to: Triple,
  angle: number,
  mmPerPx: number,
  size = 96,
  phase = 0.37,
): CodeImage {
  const sigma = widthMm / mmPerPx / Math.sqrt(2 * Math.PI);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const codes = new Uint32Array(size * size);
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      let share = 0;
      for (let k = 0; k < 25; k++) {
        const u = x + ((k % 5) + 0.5) / 5 - size / 2 + phase;
        const v = y + (Math.floor(k / 5) + 0.5) / 5 - size / 2;
        share += below((u * c + v * s) / sigma) / 25;
      }
      codes[y * size + x] = codeOfLab([0, 1, 2].map((i) => from[i] + (to[i] - from[i]) * share) as Triple);
    }
  }
  return { codes, width: size, height: size, mmPerPx };
}

/** Median width and contrast of what was found near the middle of the picture. */
function middle(edges: Edges, size: number): { width: number; contrast: number; found: number } {
  const near = Array.from({ length: edges.count }, (_, k) => k).filter(
    (k) => Math.hypot(edges.x[k] - size / 2, edges.y[k] - size / 2) < size / 5,
  );
  const median = (of: Float32Array) => near.map((k) => of[k]).sort((a, b) => a - b)[near.length >> 1];
  return { width: median(edges.width), contrast: median(edges.contrast), found: near.length };
}

const PAIRS: readonly [Triple, Triple][] = [
  [
    [20, 0, 0],
    [90, 2, 6],
  ],
  [
    [40, 10, 20],
    [65, 4, 10],
  ],
  [
    [50, 0, 0],
    [60, 0, 0],
  ],
  [
    [60, -20, 10],
    [60, 25, 15],
  ],
  [
    [30, 5, -25],
    [48, 0, 20],
  ],
];

describe('an edge of known width', () => {
  const cases = [0.2, 0.35, 0.6, 1, 2, 3.3, 6, 12].flatMap((widthMm) =>
    PAIRS.map((pair, k) => ({ widthMm, pair, angle: [0, 0.3, 0.7854, 1.2, 1.5708][k] })),
  );
  it.each(cases)('of $widthMm mm, at angle $angle, is measured within 15 %', ({ widthMm, pair: [from, to], angle }) => {
    // as fine as 150 cells an inch, and the widest in a picture as large as they need
    const size = widthMm > 4 ? 260 : 96;
    const image = edge(widthMm, from, to, angle, 25.4 / 150, size);
    const { width, contrast, found } = middle(findEdges(image), size);
    expect(found).toBeGreaterThan(2);
    expect(width / widthMm, `${width}`).toBeGreaterThan(0.85);
    expect(width / widthMm, `${width}`).toBeLessThan(1.15);
    const sides = [image.codes[0], image.codes[image.codes.length - 1]].map(labOf);
    expect(contrast / deltaE2000(sides[0], sides[1])).toBeGreaterThan(0.85);
    expect(contrast / deltaE2000(sides[0], sides[1])).toBeLessThan(1.15);
  });
});
test.each([0, 0.1, 0.25, 0.4, 0.5])('a fine edge is as wide wherever it lies between pixels: %f', (phase) => {
  for (const widthMm of [0.2, 0.28]) {
    for (const angle of [0, 0.5, 0.8]) {
      const { width } = middle(findEdges(edge(widthMm, [30, 0, 0], [75, 5, 5], angle, 25.4 / 150, 96, phase)), 96);
      expect(width / widthMm).toBeGreaterThan(0.85);
      expect(width / widthMm).toBeLessThan(1.15);
    }
  }
});

describe('lost and found', () => {
  const grey = (L: number): Triple => [L, 0, 0];
  /** Two fields side by side: a sharp border above, a soft one in the middle, and below both turn into the same grey. */
  const passage = (): CodeImage => {
    const [width, height, mmPerPx] = [240, 300, 0.25];
    const codes = new Uint32Array(width * height);
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const sigma = (y < 100 ? 0.5 : 5) / mmPerPx / Math.sqrt(2 * Math.PI);
        const fade = y < 200 ? 1 : Math.max(0.06, 1 - (y - 200) / 20);
        codes[y * width + x] = codeOfLab(grey(50 + 24 * fade * (below((x + 0.5 - 120) / sigma) - 0.5) * 2));
      }
    }
    return { codes, width, height, mmPerPx };
  };
  const measure: EdgeMeasure = { foundMm: 1.2, mostMm: 12, leastMm: 4, squintMm: 1.5 };
  // the middle grey, as a squint darkens it
  const light = { borders: [4.67], of: [] };
  const of = (image: CodeImage) => lostAndFound(image, light, measure);

  it('a border that is sharp, then soft, then gone is found, soft and lost in as many parts', () => {
    const image = passage();
    const { found, soft, lost, sharpest } = edgeReport(image, of(image));
    expect(found).toBeGreaterThan(0.28);
    expect(found).toBeLessThan(0.45);
    expect(soft).toBeGreaterThan(0.28);
    expect(lost).toBeGreaterThan(0.15);
    expect(found + soft + lost).toBeCloseTo(1, 9);
    // the sharpest is in the upper third, on the border
    expect(sharpest[0].y).toBeLessThan(110);
    expect(Math.abs(sharpest[0].x - 120)).toBeLessThan(2);
    expect(sharpest[0].widthMm).toBeGreaterThan(0.4);
    expect(sharpest[0].widthMm).toBeLessThan(0.6);
  });

  it('is drawn: a line above, a hatched band as wide as the edge in the middle, dots below', () => {
    const image = passage();
    const map = edgeMap(image, of(image));
    const tint = ([r, g, b]: readonly [number, number, number]) => (0xff000000 | (b << 16) | (g << 8) | r) >>> 0;
    const count = (row: number, kind: keyof typeof EDGE_TINTS) =>
      map.subarray(row * 240, (row + 20) * 240).filter((code) => code === tint(EDGE_TINTS[kind])).length;
    expect(count(40, 'found')).toBeGreaterThan(30);
    expect(count(140, 'found')).toBe(0);
    expect(count(140, 'soft')).toBeGreaterThan(100);
    expect(count(60, 'soft')).toBe(0);
    expect(count(250, 'lost')).toBeGreaterThan(0);
  });

  it('nothing, one colour and a few pixels have no edges, and say so without a number that is none', () => {
    for (const [width, height] of [
      [0, 0],
      [1, 1],
      [20, 1],
      [5, 4],
      [60, 50],
    ]) {
      for (const code of [0, codeOfLab(grey(40))]) {
        const image = { codes: new Uint32Array(width * height).fill(code), width, height, mmPerPx: 0.3 };
        const laf = of(image);
        expect(edgeReport(image, laf)).toEqual({ found: 0, soft: 0, lost: 0, sharpest: [], finestMm: 0.3 });
        expect(edgeMap(image, laf)).toHaveLength(width * height);
      }
    }
  });
});
