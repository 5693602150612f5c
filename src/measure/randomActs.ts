import { packedBytes } from './packedBytes';
import type { CommandInput } from '@/core/commands/commands';
import { copyPiece, type Piece } from '@/core/commands/families/pasting';
import { TOOL_IDS } from '@/core/tools/tools';
import { line, loaded, paint, studioFor } from './bench';

/** A piece of another painting, coarser than those that it is laid onto. */
let piece: Piece | undefined;
function aPiece(): Piece {
  if (piece) return piece;
  const studio = studioFor(14, 10, { ppi: 60, seed: 5 });
  paint(studio, ...loaded('flat', 6, { PY43: 2, PB29: 1 }), line(2, 3, 12, 7));
  return (piece = copyPiece(studio.painting));
}

/**
 * Random things that a painter may do, of every kind of command, from a seed: for tests that hold whatever is done
 * (files, keeping, kills, long sessions). Some are refused, as in real use.
 */
export interface Randomness {
  /** 0 up to 1. */
  next(): number;
  /** A whole number from 0 below `count`. */
  below(count: number): number;
  pick<T>(choices: readonly T[]): T;
}

/** Mulberry32: small, seeded, the same everywhere. */
export function randomFrom(seed: number): Randomness {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const below = (count: number) => Math.floor(next() * count);
  return { next, below, pick: (choices) => choices[below(choices.length)] };
}

const TUBES = ['PB29', 'PY35', 'PW6', 'PBr7BU', 'PG7', 'PBk9', 'PY43'] as const;
const round = (v: number) => Math.round(v * 100) / 100;

/** What is painted with: tools, loads, strokes, and the slab. */
export function randomStroke(random: Randomness, widthMm: number, heightMm: number, points = 12): CommandInput {
  const { next, below } = random;
  const [x0, y0] = [next() * widthMm, next() * heightMm];
  const [dx, dy] = [(next() - 0.5) * widthMm, (next() - 0.5) * heightMm];
  const count = 1 + below(points);
  return {
    do: 'stroke',
    samples: Array.from({ length: count }, (_, i) => {
      const s = i / Math.max(1, count - 1);
      return [
        i * 16,
        round(x0 + dx * s + next()),
        round(y0 + dy * s + next()),
        round(0.2 + 0.8 * next()),
        below(41) - 20,
        below(41) - 20,
        below(360),
      ];
    }),
    ...(next() < 0.08 && { on: 'slab' as const }),
  };
}

/** Anything that may happen to a painting of a size, mm. */
export function randomAct(random: Randomness, widthMm: number, heightMm: number): CommandInput {
  const { next, below, pick } = random;
  const at = (): [number, number] => [round(next() * widthMm), round(next() * heightMm)];
  const mixture = () => ({ [pick(TUBES)]: 1 + below(3), [pick(TUBES)]: 1 });
  const layer = `L${1 + below(5)}`;
  const outline = () => Array.from({ length: 3 + below(4) }, at);
  const dice = next();
  if (dice < 0.4) return randomStroke(random, widthMm, heightMm);
  if (dice < 0.55)
    return { do: 'tool', tool: pick(TOOL_IDS), sizeMm: 1 + below(9), strength: round(0.3 + 0.7 * next()) };
  if (dice < 0.65) return { do: 'load', mixture: mixture(), amount: round(0.3 + next()) };
  if (dice < 0.75) {
    return pick<CommandInput>([
      { do: 'undo' },
      { do: 'undo', hand: 'stays' },
      { do: 'redo' },
      { do: 'redo', hand: 'stays' },
      { do: 'dry' },
      { do: 'wait', seconds: below(40) },
      { do: 'leave', hours: 0.1 },
    ]);
  }
  return pick<() => CommandInput>([
    () => ({ do: 'wipe' }),
    () => ({ do: 'rinse', damp: 0.2 }),
    () => ({ do: 'load', mixture: {}, water: 0.9 }),
    () => ({ do: 'load', mixture: mixture(), amount: 1, edge: { mixture: mixture() } }),
    () => ({ do: 'slab.squeeze', mixture: mixture(), at: [below(60), below(40)] }),
    () => ({ do: 'slab.take', at: [below(60), below(40)] }),
    () => ({ do: 'slab.scrape' }),
    () => ({ do: 'retube', from: pick(TUBES), to: pick(TUBES) }),
    () => ({ do: 'silhouette', outline: outline(), mixture: mixture(), edgeMm: below(3) }),
    () => ({ do: 'silhouette', outline: outline(), cut: true }),
    () => ({ do: 'tone', mixture: mixture(), strength: below(1) }),
    () => ({ do: 'fix' }),
    () => ({ do: 'blow' }),
    () => ({ do: 'tilt', x: below(20), y: below(20) }),
    () => ({ do: 'mist', amount: 0.4 }),
    () => ({ do: 'layer.add', kind: pick(['paint', 'drawing', 'tone', 'group'] as const) }),
    () => ({ do: 'layer.add', kind: 'adjust', adjust: { kind: 'levels', all: { black: 0.1, gamma: 1.3 } } }),
    () => ({ do: 'layer.choose', layer, part: pick(['layer', 'mask', 'layer'] as const) }),
    () => ({ do: 'layer.set', layer, opacity: round(next()), blend: pick(['normal', 'multiply', 'screen'] as const) }),
    () => ({ do: 'layer.set', layer, visible: true, locked: false, onlyPaint: next() < 0.3 }),
    () => ({ do: 'layer.recolour', layer, mixture: mixture() }),
    () => ({
      do: 'layer.bring',
      widthPx: 6,
      heightPx: 4,
      dark: packedBytes(Uint8Array.from({ length: 24 }, () => below(256))),
    }),
    () => ({
      do: 'layer.picture',
      widthPx: 3,
      heightPx: 2,
      rgba: packedBytes(Uint8Array.from({ length: 24 }, () => below(256))),
    }),
    () => ({ do: 'layer.move', layer, to: below(4) }),
    () => ({ do: 'layer.remove', layer }),
    () => ({ do: 'layer.duplicate', layer }),
    () => ({ do: 'layer.merge', layer }),
    () => ({ do: 'layer.copy-all', grey: next() < 0.5 }),
    () => ({ do: 'layer.mask', layer, how: pick(['show', 'hide', 'selection', 'invert', 'remove'] as const) }),
    () => ({ do: 'layer.soften', radiusMm: 1 }),
    () => ({ do: 'layer.base', layer, mixture: mixture() }),
    () => ({ do: 'layer.values' }),
    () => ({ do: 'layer.prepare', mixtures: [mixture()], seed: below(99) }),
    () => ({ do: 'select', how: pick(['rectangle', 'ellipse'] as const), from: at(), to: at(), edgeMm: below(2) }),
    () => ({ do: 'select', how: pick(['none', 'none', 'invert', 'painted', 'soften', 'grow'] as const) }),
    () => ({ do: 'select', how: 'colour', from: at() }),
    () => ({ do: 'transform', turn: pick([90, 180] as const) }),
    () => ({ do: 'transform', matrix: [0.9, 0.2, -0.2, 1, 1, 1] }),
    () => ({
      do: 'canvas',
      leftMm: below(5) - 1,
      rightMm: below(5) - 1,
      topMm: below(4) - 1,
      bottomMm: below(4) - 1,
    }),
    () => ({ do: 'canvas', turn: 90 }),
    () => ({ do: 'fill', at: at(), mixture: mixture(), by: pick(['colour', 'lines'] as const) }),
    () => {
      const places = [at(), at()];
      // every other time a piece from elsewhere is laid there
      return Math.round(places[0][0] * 100) % 2
        ? { do: 'paste', piece: aPiece(), at: places[1] }
        : { do: 'stamp', at: places, turnJitter: 20 };
    },
  ])();
}
