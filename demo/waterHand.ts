/** A watercolourist's hand: washes laid into shapes, lines, drops. Lengths in mm on the sheet. */
import { writeFileSync } from 'node:fs';
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/journal/commands';
import { readJournal } from '@/core/journal/replay';
import type { ToolId } from '@/core/marks/tools';
import type { PaperKind } from '@/core/surface/paper';
import { noise1, randomFrom } from '@/core/surface/noise';

export type Place = readonly [x: number, y: number];

export function waterHand(seed: number, widthMm: number, heightMm: number) {
  const random = randomFrom(seed);
  const entries: CommandInput[] = [];
  const round = (v: number, by = 100) => Math.round(v * by) / by;
  const vary = (v: number, by: number) => v * (1 + by * (2 * random() - 1));

  /** Takes a brush full of a wash; no mixture is clear water. */
  function dip(tool: ToolId, sizeMm: number, mixture: Mixture, amount = 1, water = 0.7): void {
    const mixed = Object.fromEntries(Object.entries(mixture).map(([id, n]) => [id, round(vary(n, 0.08), 1e4)]));
    entries.push(
      { do: 'tool', tool, sizeMm: round(sizeMm, 10) },
      { do: 'load', mixture: mixed, amount: round(amount), water },
    );
  }
  function take(tool: ToolId, sizeMm: number, held: object = {}): void {
    entries.push({ do: 'tool', tool, sizeMm: round(sizeMm, 10), ...held });
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

  /** Lays the brush in hand to and fro over a shape, row by row in one bead. */
  function fill(
    inside: (x: number, y: number) => boolean,
    sizeMm: number,
    [x0, y0, x1, y1]: readonly [number, number, number, number],
    speed = 140,
  ): void {
    let forth = true;
    const r = sizeMm * 0.42;
    for (let y = y0 + r; y < y1; y += sizeMm * 0.48) {
      let from: number | undefined;
      const spans: Place[] = [];
      for (let x = x0; x <= x1 + 1; x += 1) {
        const wet = x <= x1 && inside(x, y) && inside(x, y + r * 0.5) && inside(x, y - r * 0.5);
        if (wet && from === undefined) from = x;
        if (!wet && from !== undefined) {
          if (x - from > 1.2 * r) spans.push([from + 0.7 * r, x - 1 - 0.7 * r]);
          from = undefined;
        }
      }
      for (const [a, b] of forth ? spans : spans.reverse()) {
        stroke(forth ? [[a, y], [Math.max(a, b), y]] : [[Math.max(a, b), y], [a, y]], 0.85, speed, 0.8); // prettier-ignore
      }
      forth = !forth;
    }
  }

  const drop = (x: number, y: number, pressure = 0.6) => entries.push({ do: 'stroke', samples: [[0, round(x), round(y), round(pressure)]] }); // prettier-ignore
  const wait = (seconds: number) => entries.push({ do: 'wait', seconds });
  const dry = () => entries.push({ do: 'dry' });

  function save(path: string, kind: PaperKind, tint: 'white' | 'natural' | 'cream' = 'natural'): void {
    const journal = {
      format: 'stigmos-journal',
      version: 1,
      painting: { widthMm, heightMm, ppi: 110, seed, surface: { kind, scale: 1, depth: 1, tint } },
      entries,
    };
    readJournal(journal);
    writeFileSync(path, `${JSON.stringify(journal).replaceAll('{"do"', '\n{"do"')}\n`);
    console.log(`${path}: ${entries.filter((e) => e.do === 'stroke').length} strokes`);
  }
  return { random, vary, dip, take, stroke, fill, drop, wait, dry, save, entries };
}
