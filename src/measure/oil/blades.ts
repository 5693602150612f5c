import { columnMeans, covered, meanOf, raggedness, rowMeans, rowOf, swath } from '@/measure/alongStroke';
import { groundFor, type Ground, type Reading } from '@/measure/behaviour';
import { deviation, mean, paint, values } from '@/measure/bench';
import { WEAVES, drawn, laid, powers } from './oilStrokes';

/** What knives and scrapers do. */

export function slab(ground: Ground): Reading[] {
  const { studio, way } = laid(ground, 65, 20, 0);
  paint(
    studio,
    { do: 'tool', tool: 'knife', sizeMm: 17, body: 0.9, hold: 'flat' },
    { do: 'rinse' },
    { do: 'load', mixture: { PB28: 1, PW6: 2 }, amount: 1 },
    drawn(way, 65),
  );
  const inside = swath(studio, way, 15, 50, 6);
  const all = swath(studio, way, -6, 66, 7);
  const starts = Array.from(
    { length: all.across },
    (_, j) =>
      Math.max(
        0,
        rowOf(all, j).findIndex((v) => v > 40),
      ) * all.mmPerPx,
  );
  return [
    { what: 'variation of a slab', value: deviation([...inside.values]) / meanOf(inside), least: 0.07, most: 0.14 },
    { what: 'raggedness of its start', value: raggedness(starts), unit: 'mm', least: 0.05 },
  ];
}

/** What is left on a knife hangs in strings, which it leaves along its way and not on every crest of the weave. */
export function runsOut(ground: Ground): Reading[] {
  const weave = WEAVES[ground.surface];
  const { studio, way } = laid(ground, 90, 20, 0);
  paint(
    studio,
    { do: 'tool', tool: 'knife', sizeMm: 17, body: 0.6, hold: 'flat' },
    { do: 'rinse' },
    { do: 'load', mixture: { PB28: 1, PW6: 2 }, amount: 0.15 },
    drawn(way, 90, { pressure: 0.4 }),
  );
  const windows = Array.from({ length: 11 }, (_, k) => covered(swath(studio, way, 6 * k, 6 * k + 20, 6)));
  const tail = windows.reduce((a, b) => (Math.abs(meanOf(b) - 0.35) < Math.abs(meanOf(a) - 0.35) ? b : a));
  const across = deviation(rowMeans(tail)) ** 2;
  const along = deviation(columnMeans(tail)) ** 2;
  const readings: Reading[] = [{ what: 'variance across to along', value: across / along, least: 0.08 }];
  if (!weave) return readings;
  const { lattice, streaks } = powers(tail, weave);
  return [
    ...readings,
    { what: 'power on the lattice of the weave', value: lattice, most: 0.055 },
    { what: 'power in streaks along the way', value: streaks, least: 0.2 },
  ];
}

/** Share of a film that a scraper leaves. */
function scraped(ground: Ground, pressure: number): number {
  const studio = groundFor(ground, 60, 40);
  const um = 220;
  paint(
    studio,
    {
      do: 'silhouette',
      outline: [
        [6, 8],
        [54, 8],
        [54, 32],
        [6, 32],
      ],
      mixture: { PR101I: 1 },
      thicknessUm: um,
    },
    { do: 'tool', tool: 'scraper', sizeMm: 17 },
    drawn({ x: 30, y: 3, angle: Math.PI / 2 }, 34, { pressure }),
  );
  return mean(values(studio, 'volume', [24, 14, 12, 12])) / um;
}

export function scraper(ground: Ground): Reading[] {
  const rough = ground.surface === 'linen-coarse';
  return [
    { what: 'left by a scraper at half pressure', value: scraped(ground, 0.5), least: 0.15, most: rough ? 0.35 : 0.3 },
    {
      what: 'left by a pressed scraper',
      value: scraped(ground, 1),
      least: rough ? 0.08 : 0,
      most: rough ? 0.2 : ground.surface === 'panel' ? 0.08 : 0.14,
    },
  ];
}
