/** Wet paint that meets wet or damp paper. */

import { groundFor, type Ground, type Reading } from '@/measure/behaviour';
import { deviation, mean, paint } from '@/measure/bench';
import { areaOf, blurredBy, cut, mapped, perimeter, quantile, togetherLength } from '@/measure/plane';
import { first } from '@/measure/thorough';
import { dipped, massError, waterError } from './washBench';
import { DRY, wait, laid, line, drop, flatWash } from './wetSheet';
import { sectors } from './wetDrops';

/** A drop of water on a dry wash loosens it, and leaves a ring. */
export function ring(ground: Ground): Reading[] {
  const studio = groundFor(ground, 60, 50);
  paint(studio, ...flatWash('PB28', [6, 6, 48, 38], { strength: 0.6 }), wait(40), DRY);
  const before = blurredBy(laid(studio, 'PB28'), 0.25);
  paint(studio, ...dipped('dropper', 7, {}, { water: 1 }), drop(30, 25), wait(60), DRY);
  const after = blurredBy(laid(studio, 'PB28'), 0.25);
  const ratio = mapped(after, (v, i) => v / Math.max(1e-9, before.values[i]));
  const around = sectors(ratio, 30, 25, 12);
  return [
    { what: 'middle to the wash', value: around.inside, most: 0.86 },
    { what: 'ring to the wash', value: around.rim, least: 1.15 },
  ];
}

/** A drop in a wash that loses its shine, at the best of four moments. */
export function backRun(ground: Ground): Reading[] {
  let best: { rim: number; inside: number; crinkle: number } | undefined;
  const wash = flatWash('PB29', [8, 6, 70, 40], { strength: 0.6, water: 0.9 });
  const plain = groundFor(ground, 90, 60);
  paint(plain, ...wash, wait(100), DRY);
  const base = blurredBy(laid(plain, 'PB29'), 0.25);
  for (const moment of first(1, [85, 60, 110, 140])) {
    const studio = groundFor(ground, 90, 60);
    paint(
      studio,
      ...wash,
      wait(moment),
      ...dipped('dropper', 7, {}, { water: 1 }),
      drop(42, 27, 0.7, 300),
      wait(30),
      DRY,
    );
    const ratio = mapped(blurredBy(laid(studio, 'PB29'), 0.25), (v, i) => v / Math.max(1e-9, base.values[i]));
    const around = sectors(ratio, 42, 27, 17);
    const part = cut(ratio, [42 - 17, 27 - 17, 34, 34]);
    const limit = (1 + around.inside) / 2;
    const middle = (part.width - 1) / 2;
    const pale = mapped(part, (v, i) => {
      const far = Math.hypot((i % part.width) - middle, Math.floor(i / part.width) - middle) * part.mmPerPx;
      return v < limit && far < around.radius + 4 ? 1 : 0;
    });
    const area = areaOf(pale);
    const crinkle = area > 4 ? perimeter(pale) / (2 * Math.sqrt(Math.PI * area)) : 0;
    if (!best || around.rim > best.rim) best = { rim: around.rim, inside: around.inside, crinkle };
  }
  return [
    { what: 'rim to the wash', value: best!.rim, least: 1.3 },
    { what: 'inside to the wash', value: best!.inside, most: 0.8 },
    { what: 'length of its border to that of a circle', value: best!.crinkle, least: 1.03 },
  ];
}

export function meeting(ground: Ground): Reading[] {
  const studio = groundFor(ground, 76, 48);
  paint(studio, ...dipped('wash-flat', 12, { PB29: 1 }, { water: 0.85, strength: 0.6 }), line(10, 16, 66, 16));
  paint(
    studio,
    ...dipped('wash-flat', 12, { PY150: 1 }, { water: 0.85, strength: 0.6 }),
    line(10, 28.2, 66, 28.2),
    wait(40),
    DRY,
  );
  const parts = ['PB29', 'PY150'].map((id) => {
    const sheet = laid(studio, id);
    const whole = quantile(sheet.values, 0.9);
    return blurredBy(
      mapped(sheet, (v) => v / whole),
      0.42,
    ).values;
  });
  const sheet = laid(studio, 'PB29');
  const mixed = mapped(sheet, (_, i) => (Math.min(parts[0][i], parts[1][i]) > 0.15 ? 1 : 0));
  const charged = groundFor(ground, 80, 60);
  paint(charged, ...dipped('wash-round', 13.7, { PY150: 1 }, { water: 0.8 }), line(12, 28, 60, 28, 800, 0.8));
  paint(
    charged,
    ...dipped('wash-round', 5.3, { PB15_3: 1 }, { water: 0.5, strength: 0.9 }),
    line(36, 28, 38, 28, 200, 0.6),
    wait(40),
    DRY,
  );
  const blue = cut(blurredBy(laid(charged, 'PB15_3'), 0.85), [10, 20, 54, 16]);
  const columns = Array.from({ length: blue.width }, (_, x) =>
    Math.max(...Array.from({ length: blue.height }, (_unused, y) => blue.values[y * blue.width + x])),
  );
  const most = Math.max(...columns);
  const over = columns.flatMap((v, x) => (v > 0.1 * most ? [x] : []));
  return [
    {
      what: 'width over which neighbours mix',
      value: mean([...cut(mixed, [16, 6, 44, 36]).values]) * 36,
      unit: 'mm',
      least: 1.3,
    },
    {
      what: 'length of a colour that was let in',
      value: (over.at(-1)! - over[0]) * blue.mmPerPx,
      unit: 'mm',
      least: 6.5,
    },
    { what: 'pigment unaccounted for', value: Math.max(massError(studio), massError(charged)), most: 1e-4 },
    { what: 'water unaccounted for', value: Math.max(waterError(studio), waterError(charged)), most: 1e-4 },
  ];
}

/** A stroke into a wet sheet: its border to that of a smooth band of the same area. */
export function wetInWet(ground: Ground): Reading[] {
  const studio = groundFor(ground, 90, 60);
  paint(studio, ...dipped('hake', 41, {}, { water: 0.8 }), line(6, 28, 84, 28, 900, 0.6), wait(8));
  paint(
    studio,
    ...dipped('wash-round', 7.3, { PV19: 1 }, { water: 0.6, strength: 0.8 }),
    line(20, 28, 66, 28, 900, 0.5),
    wait(40),
    DRY,
  );
  const soft = blurredBy(laid(studio, 'PV19'), 0.15);
  const limit = 0.25 * quantile(soft.values, 0.98);
  const on = mapped(soft, (v) => (v > limit ? 1 : 0));
  const area = areaOf(on);
  const round = perimeter(on);
  const length = 46 + 7.3;
  const smooth = 2 * length + (2 * area) / length;
  return [
    { what: 'square of its border to its area', value: (round * round) / area, least: 40 },
    { what: 'the same, to that of a smooth band', value: (round / smooth) ** 2, least: 1.1 },
  ];
}

export function dryBrush(ground: Ground): Reading[] {
  const studio = groundFor(ground, 90, 40);
  paint(
    studio,
    { do: 'tool', tool: 'dry-brush', sizeMm: 13.7, strength: 0.8, water: 0.2 },
    { do: 'load', mixture: { PBr7BU: 1 }, amount: 0.8, water: 0.2 },
    line(10, 20, 82, 20, 500, 0.45),
    wait(200),
    DRY,
  );
  const sheet = laid(studio, 'PBr7BU');
  const limit = 0.15 * quantile(sheet.values, 0.99);
  const on = mapped(sheet, (v) => (v > limit ? 1 : 0));
  const inside = cut(on, [25, 15, 45, 10]);
  const begins: number[] = [];
  const ends: number[] = [];
  for (let y = 14.5; y < 25.5; y += 0.35) {
    const row = on.values.subarray(Math.floor(y / on.mmPerPx) * on.width, (Math.floor(y / on.mmPerPx) + 1) * on.width);
    const first = row.indexOf(1);
    if (first < 0) continue;
    begins.push(first * on.mmPerPx);
    ends.push(row.lastIndexOf(1) * on.mmPerPx);
  }
  return [
    {
      what: 'length of its grain along to across',
      value: togetherLength(inside, 'x') / togetherLength(inside, 'y'),
      least: 1.5,
    },
    { what: 'where its hairs begin, deviation', value: deviation(begins), unit: 'mm', least: 0.8 },
    { what: 'where they end, deviation', value: deviation(ends), unit: 'mm', least: 0.8 },
  ];
}

/** Strokes of brushes with a belly and a point, under a steady hand: how broad they are near where they begin. */
export function begun(ground: Ground): Reading[] {
  return (['mop', 'wash-round'] as const).map((tool) => {
    const studio = groundFor(ground, 60, 24);
    paint(studio, ...dipped(tool, 9, { PB15_3: 1 }, { water: 0.6 }), line(14, 12, 50, 12), DRY);
    const { width, height, values, mmPerPx } = laid(studio, 'PB15_3');
    const most = quantile(values, 0.98);
    const widths = Array.from({ length: width }, (_, x) => {
      let n = 0;
      for (let y = 0; y < height; y++) if (values[y * width + x] > 0.2 * most) n++;
      return n * mmPerPx;
    });
    const whole = quantile(widths.slice(Math.round(25 / mmPerPx), Math.round(40 / mmPerPx)), 0.5);
    const start = widths.findIndex((mm) => mm > 0);
    return {
      what: `${tool}: width near its start to the whole`,
      value: widths[start + Math.round((0.12 * whole) / mmPerPx)] / whole,
      least: 0.45,
    };
  });
}
