/** A watercolourist's hand: washes laid into shapes, lines, drops. Lengths in mm on the sheet. */
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import type { ToolId } from '@/core/tools/tools';
import type { PaperKind } from '@/core/surface/paper';
import { noise1, randomFrom } from '@/core/surface/noise';
import { toolOf } from '@/core/tools/tools';
import { touchArea } from '@/core/marks/wet/washForms';
import { shapeOf, type Inside, type Place } from './shapes';
import { writeJournal } from './writeJournal';

export type { Place };

/** A brush full of a wash; no mixture is clear water. */
export interface Brush {
  readonly tool: ToolId;
  readonly sizeMm: number;
  readonly mixture: Mixture;
  readonly amount?: number;
  readonly water?: number;
}

/** How far shapes are followed beyond the sheet, mm. */
const MARGIN = 30;

const length = (places: readonly Place[]): number =>
  places.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - places[i][0], y - places[i][1]), 0);

export function waterHand(seed: number, widthMm: number, heightMm: number) {
  const random = randomFrom(seed);
  const entries: CommandInput[] = [];
  const round = (v: number, by = 100) => Math.round(v * by) / by;
  const vary = (v: number, by: number) => v * (1 + by * (2 * random() - 1));

  /** Takes a brush full of a wash; no mixture is clear water. */
  function dip(tool: ToolId, sizeMm: number, mixture: Mixture, amount = 1, water = 0.7): void {
    const mixed = Object.fromEntries(Object.entries(mixture).map(([id, n]) => [id, round(vary(n, 0.05), 1e4)]));
    entries.push(
      { do: 'tool', tool, sizeMm: round(sizeMm, 10) },
      { do: 'load', mixture: mixed, amount: round(amount), water },
    );
  }
  function take(tool: ToolId, sizeMm: number, set: object = {}): void {
    entries.push({ do: 'tool', tool, sizeMm: round(sizeMm, 10), ...set });
    held = undefined;
  }

  /** A stroke through places, at a speed of the hand (mm/s), with its unsteadiness. */
  function stroke(
    places: readonly Place[],
    pressure: number | ((s: number) => number) = 0.8,
    speed = 90,
    shake = 0.5,
  ): void {
    const at = typeof pressure === 'number' ? () => pressure : pressure;
    const lengths = places.slice(1).map(([x, y], i) => Math.hypot(x - places[i][0], y - places[i][1]));
    const total = Math.max(
      0.1,
      lengths.reduce((a, b) => a + b, 0),
    );
    const wobble = Math.floor(random() * 1e6);
    const samples: number[][] = [];
    let far = 0;
    places.forEach(([x, y], i) => {
      const steps = i === 0 ? 1 : Math.max(1, Math.ceil(lengths[i - 1] / 5));
      for (let k = i === 0 ? 1 : 1; k <= steps; k++) {
        const t = i === 0 ? 0 : k / steps;
        const px = i === 0 ? x : places[i - 1][0] + (x - places[i - 1][0]) * t;
        const py = i === 0 ? y : places[i - 1][1] + (y - places[i - 1][1]) * t;
        const s = i === 0 ? 0 : (far + lengths[i - 1] * t) / total;
        samples.push([
          Math.round((s * total * 1000) / speed),
          round(px + shake * (noise1(s * total * 0.12, wobble) - 0.5)),
          round(py + shake * (noise1(s * total * 0.12, wobble + 1) - 0.5)),
          round(Math.max(0.05, Math.min(1, at(s) * (0.9 + 0.2 * noise1(s * 6, wobble + 2)))), 1000),
        ]);
      }
      if (i > 0) far += lengths[i - 1];
    });
    entries.push({ do: 'stroke', samples });
  }

  /** A brush is dipped again when it has gone this many of its widths: before it begins to run dry. */
  const lasts = (tool: ToolId, sizeMm: number) => {
    const form = toolOf(tool).wash!;
    return 0.42 * (touchArea(form, sizeMm) / sizeMm) * form.holds;
  };

  /** A line of any length, dipping again in time. */
  function line(
    brush: Brush,
    places: readonly Place[],
    pressure: number | ((s: number) => number) = 0.85,
    speed = 90,
    shake = 0.3,
  ): void {
    const at = typeof pressure === 'number' ? () => pressure : pressure;
    let piece: Place[] = [];
    let way = 0;
    let from = 0;
    const total = length(places);
    let done = 0;
    const put = () => {
      if (piece.length === 0) return;
      if (left <= 0 || brush !== held) load(brush);
      const [a, b] = [from, done];
      stroke(piece, (s) => at((a + (b - a) * s) / Math.max(0.1, total)), speed, shake);
      left -= way;
    };
    places.forEach((p, i) => {
      if (i > 0) {
        const step = Math.hypot(p[0] - places[i - 1][0], p[1] - places[i - 1][1]);
        way += step;
        done += step;
      }
      piece.push(p);
      const rest = brush === held && left > 0 ? left : lasts(brush.tool, brush.sizeMm);
      if (way < rest || piece.length < 2) return;
      put();
      piece = [p];
      way = 0;
      from = done;
    });
    if (piece.length > 1 || places.length === 1) put();
  }

  let held: Brush | undefined;
  /** How far the brush in hand goes before it has to be dipped again, mm. */
  let left = 0;
  /** Dips a brush into its wash. */
  function load(brush: Brush): void {
    const { tool, sizeMm, mixture, amount = 1, water = 0.7 } = brush;
    dip(tool, sizeMm, mixture, amount, water);
    held = brush;
    left = lasts(tool, sizeMm);
  }

  /**
   * Lays a wash into a shape: first along its edge with the smaller brush, then to and fro inside it, all in one bead.
   * Where the shape leaves the sheet, so does the brush.
   * @param middle a brush for each row, or one for all; none for narrow shapes
   */
  function lay(
    inside: Inside,
    edge: Brush,
    middle?: Brush | ((y: number) => Brush),
    { speed = 220, soft = 0 } = {},
  ): void {
    const shape = shapeOf(inside, [-MARGIN, -MARGIN, widthMm + MARGIN, heightMm + MARGIN]);
    load(edge);
    // two rings where the middle is laid with a larger brush, so that none of its rows leaves a gap
    for (const ring of middle ? [0.46, 1.2] : [0.46]) {
      for (const contour of shape.contours(ring * edge.sizeMm + soft)) {
        const places = contour.filter((_, i) => i % 5 === 0 || i === contour.length - 1);
        for (const part of within(places)) {
          if (length(part) > edge.sizeMm * 0.4) line(edge, part, 0.85, speed * 0.8, 0.2);
        }
      }
    }
    if (!middle) return;
    const at = typeof middle === 'function' ? middle : () => middle;
    const reach = at(0).sizeMm * 0.42;
    let forth = true;
    for (let y = -MARGIN / 2; y < heightMm + MARGIN / 2; y += at(0).sizeMm * 0.42) {
      const brush = at(y);
      const spans: [number, number][] = [];
      let from: number | undefined;
      for (let x = -MARGIN + 1; x < widthMm + MARGIN; x += 0.5) {
        const wet = shape.depth(x, y) > reach + 0.18 * edge.sizeMm + soft;
        if (wet) from ??= x;
        if ((!wet || x + 0.5 >= widthMm + MARGIN) && from !== undefined) {
          spans.push([from, x]);
          from = undefined;
        }
      }
      for (const [a, b] of forth ? spans : spans.reverse()) {
        line(
          brush,
          forth
            ? [
                [a, y],
                [(a + b) / 2, y],
                [b, y],
              ]
            : [
                [b, y],
                [(a + b) / 2, y],
                [a, y],
              ],
          0.9,
          speed,
          0.5,
        );
      }
      forth = !forth;
    }
  }

  /** The parts of a line that lie on the sheet or close to it. */
  function within(places: readonly Place[]): Place[][] {
    const parts: Place[][] = [];
    let part: Place[] = [];
    for (const p of places) {
      if (p[0] > -8 && p[1] > -8 && p[0] < widthMm + 8 && p[1] < heightMm + 8) part.push(p);
      else if (part.length > 0) {
        parts.push(part);
        part = [];
      }
    }
    if (part.length > 0) parts.push(part);
    return parts;
  }

  const drop = (x: number, y: number, pressure = 0.6) =>
    entries.push({ do: 'stroke', samples: [[0, round(x), round(y), round(pressure)]] });
  const wait = (seconds: number) => entries.push({ do: 'wait', seconds });
  const dry = () => entries.push({ do: 'dry' });

  function save(path: string, kind: PaperKind, tint: 'white' | 'natural' | 'cream' = 'natural'): void {
    writeJournal(path, { widthMm, heightMm, ppi: 130, seed, surface: { kind, scale: 1, depth: 1, tint } }, entries);
  }
  return { random, vary, dip, take, stroke, line, load, lay, drop, wait, dry, save, entries };
}
