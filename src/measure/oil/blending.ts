import type { ToolId } from '@/core/tools/tools';
import { Picture } from '@/core/picture/picture';
import type { CommandInput } from '@/core/commands/commands';
import { groundFor, type Behaviour, type Ground } from '@/measure/behaviour';
import { deviation, edgeWidth, field, line, loaded, mean, meanLab, paint } from '@/measure/bench';
import type { Studio } from '@/core/journal/studio';

/** Softening an edge with what carries no paint of its own. */
const DARK = { PB29: 1, PBr7BS: 1.2, PW6: 0.2 };
const LIGHT = { PW6: 5, PY43: 1 };
const EDGE_MM = 60;

/** Dark and light wet paint, side by side. */
function edge(ground: Ground): Studio {
  const studio = groundFor(ground, 130, 50);
  paint(studio, ...field([5, 4, 55, 42], DARK, 13));
  for (let y = 10.5; y < 44; y += 8) {
    paint(studio, ...loaded('flat', 13, LIGHT, { body: 0.5, amount: 1.2 }), line(115, y, EDGE_MM + 0.2, y));
  }
  return studio;
}

/** Lightness along rows over the edge, each row apart. */
function rows(studio: Studio, from: number, to: number): number[][] {
  const picture = new Picture(studio.painting);
  const out: number[][] = [];
  const step = Math.max(0.25, 1.001 * studio.painting.mmPerPx);
  for (let y = 14; y < 34; y += 0.5) {
    const row: number[] = [];
    for (let x = from; x < to; x += step) row.push(meanLab(studio, [x, y, step, 0.5], picture)[0]);
    out.push(row);
  }
  return out;
}

const profile = (all: number[][]) => all[0].map((_, i) => mean(all.map((row) => row[i])));

/** How much lightness at the edge varies from row to row, beyond what is broad. */
function streakiness(all: number[][]): number {
  const middle = all.map((row) => mean(row.slice(row.length / 2 - 16, row.length / 2 + 24)));
  return deviation(middle.map((v, i) => v - mean(middle.slice(Math.max(0, i - 4), i + 5))));
}

/** One light zigzag over the edge. */
const zigzag = (reach: number, step: number): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: Math.floor(60 / step) }, (_, i) => [
    i * 50,
    EDGE_MM + (i % 2 ? reach : -reach),
    10 + (i * step) / 2,
    0.45,
  ]),
});

function softened(ground: Ground, tool: ToolId) {
  const studio = edge(ground);
  const before = edgeWidth(profile(rows(studio, 50, 70)));
  paint(studio, { do: 'tool', tool, sizeMm: 14 });
  if (tool === 'blender-bristle') {
    for (let y = 14; y < 40; y += 8.5) {
      const samples = Array.from({ length: 20 }, (_, i) => [
        i * 20,
        EDGE_MM - 11 + i * 1.2,
        y + i * 0.05,
        0.55 * Math.sin(Math.PI * (0.1 + 0.04 * i)),
      ]);
      paint(studio, { do: 'stroke', samples });
    }
  } else paint(studio, zigzag(6.5, 6.5), zigzag(11.5, 8.5));
  const after = rows(studio, 40, 80);
  return { grows: edgeWidth(profile(after)) / before, streaks: streakiness(after) };
}

export const BLENDING: readonly Behaviour[] = [
  {
    id: 'lost-edges',
    says: 'A clean soft blender loses a hard edge; the toothy one softens it and keeps streaks.',
    measure(ground) {
      const soft = softened(ground, 'blender-soft');
      const toothy = softened(ground, 'blender-bristle');
      return [
        { what: 'edge wider by the soft blender', value: soft.grows, unit: 'times', least: 4 },
        { what: 'edge wider by the toothy blender', value: toothy.grows, unit: 'times', least: 2.5 },
        { what: 'variance along the edge, toothy to soft', value: (toothy.streaks / soft.streaks) ** 2, least: 3 },
      ];
    },
  },
  {
    id: 'stump',
    says: 'A finger drags the edge along.',
    measure: (ground) => [{ what: 'edge wider', value: softened(ground, 'stump').grows, unit: 'times', least: 3 }],
  },
];
