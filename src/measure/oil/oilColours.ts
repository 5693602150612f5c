import { deltaE2000 } from '@/core/colour/deltaE2000';
import type { Mixture } from '@/core/colour/mixture';
import type { CommandInput } from '@/core/commands/commands';
import { rowMeans, swath, type Swath } from '@/measure/alongStroke';
import { groundFor, type Ground, type Reading } from '@/measure/behaviour';
import { field, line, loaded, meanLab, paint, values, type Area } from '@/measure/bench';
import { drawn } from './oilStrokes';

/** Colours that meet on a brush of oil: streaks, what it holds, what it is wiped of, a dark drawn into a light. */

const BLUE: Mixture = { PB29: 1, PW6: 1 };

/** What the place across a stroke tells of the pigment there, bits: 0 where all is one even mixture. */
function information(masses: readonly Swath[]): number {
  const across = masses.map(rowMeans);
  const entropy = (p: readonly number[]) => -p.reduce((s, v) => s + (v > 0 ? v * Math.log2(v) : 0), 0);
  const weights = across[0].map((_, j) => across.reduce((s, m) => s + m[j], 0));
  const all = weights.reduce((a, b) => a + b, 0);
  const total = entropy(across.map((m) => m.reduce((a, b) => a + b, 0) / all));
  const each = weights.reduce((s, w, j) => s + (w > 0 ? (w / all) * entropy(across.map((m) => m[j] / w)) : 0), 0);
  return total - each;
}

export function colourStreaks(ground: Ground): Reading[] {
  const studio = groundFor(ground, 105, 40);
  const block = (x: number, mixture: Mixture): CommandInput => ({
    do: 'silhouette',
    outline: [
      [x, 4],
      [x + 20, 4],
      [x + 20, 36],
      [x, 36],
    ],
    mixture: { ...mixture },
    thicknessUm: 120,
  });
  const way = { x: 8, y: 20, angle: 0 };
  paint(studio, block(20, { PB29: 1, PW6: 2 }), block(40, { PY35: 1, PW6: 1 }));
  paint(
    studio,
    ...loaded('bright', 14, { PR108M: 1 }, { body: 0.7, blend: 0.3, amount: 0.5 }),
    drawn(way, 87, { pressure: 0.7 }),
  );
  const pigments = ['PB29', 'PW6', 'PY35', 'PR108M'];
  return [50, 65, 80].map((x) => ({
    what: `what the place across tells of the pigment, at ${x} mm`,
    value: information(pigments.map((p) => swath(studio, way, x - 8, x - 4, 5, p))),
    unit: 'bits',
    least: 0.015,
  }));
}

export function held(ground: Ground): Reading[] {
  const mass = (seconds: number) => {
    const studio = groundFor(ground, 60, 60);
    const samples = Array.from({ length: Math.round(seconds * 50) + 1 }, (_, i) => [i * 20, 30, 30, 0.6]);
    paint(studio, ...loaded('spray', 20, BLUE, { body: 0.05, distanceMm: 80, blend: 0 }), { do: 'stroke', samples });
    return values(studio, 'volume', [0, 0, 60, 60]).reduce((a, b) => a + b, 0);
  };
  const [short, long] = [0.2, 4].map(mass);
  return [{ what: 'spray held still for 4 s to 20 times .2 s', value: long / short / 20, least: 0.95, most: 1.05 }];
}

export function wiped(ground: Ground): Reading[] {
  const white = (dirty: boolean) => {
    const studio = groundFor(ground, 60, 40);
    paint(studio, ...loaded('flat', 14, { PB29: 1, PBr7BU: 1 }));
    if (dirty) paint(studio, line(6, 9, 54, 9), { do: 'wipe' });
    else paint(studio, { do: 'rinse' });
    paint(studio, { do: 'load', mixture: { PW6: 1 }, amount: 1 }, line(6, 28, 54, 28));
    return meanLab(studio, [14, 24, 24, 8]);
  };
  return [
    {
      what: 'white from a wiped brush after a dark',
      value: deltaE2000(white(true), white(false)),
      unit: 'Delta E',
      most: 4,
    },
  ];
}

/** A dark drawn into wet light paint: how much of the light's lightness it has taken, against bare ground. */
export function darkIntoLight(ground: Ground): Reading[] {
  const strength = (blend: number) => {
    const studio = groundFor(ground, 90, 50);
    const light = { PW6: 4, PY43: 0.4 };
    paint(
      studio,
      ...field([4, 4, 82, 20], light, 14),
      ...loaded('flat', 10, { PBr7BU: 1, PB29: 0.6 }, { blend, body: 0.6 }),
    );
    paint(
      studio,
      line(10, 14, 70, 14),
      { do: 'rinse' },
      { do: 'load', mixture: { PBr7BU: 1, PB29: 0.6 }, amount: 1 },
      line(10, 38, 70, 38),
    );
    const [paper, on, alone] = [
      [76, 10, 6, 8],
      [24, 12, 20, 4],
      [24, 36, 20, 4],
    ].map((area) => meanLab(studio, area as unknown as Area)[0]);
    return (paper - on) / (paper - alone);
  };
  const all = [0, 0.1, 0.3, 0.5, 0.8].map(strength);
  return [
    { what: 'strength of a dark in wet light at lay-blend .1', value: all[1], least: 0.7, most: 0.95 },
    { what: 'at .5', value: all[3], least: 0.4, most: 0.6 },
    { what: 'least that more blend takes', value: Math.min(...all.slice(1).map((v, i) => all[i] - v)), least: 0.02 },
  ];
}
