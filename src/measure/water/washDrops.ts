import { coatsAt, dipped, meanCoats, through, waitForFilm, waitTillDry, washed } from './washBench';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { Picture } from '@/core/picture/picture';
import { groundFor, type Ground, type Reading } from '@/measure/behaviour';
import { eachCell, mean, meanLab, paint, type Area } from '@/measure/bench';

/** Drops into washes, and washes that are lifted or dried at once. */

const BLUE = { PB29: 1 };
const CYAN = { PB15_3: 1 };

/** Area over which a drop has spread (mm2 above a trace), and the share of it beyond a radius. */
export function spread(ground: Ground, wet: boolean): { area: number; outside: number } {
  const studio = groundFor(ground, 50, 50);
  if (wet) {
    const spiral = Array.from({ length: 46 }, (_, k): [number, number] => {
      const r = 16.5 * Math.sqrt((45 - k) / 45);
      return [25 + r * Math.cos(k * 0.72), 25 + r * Math.sin(k * 0.72)];
    });
    paint(
      studio,
      ...dipped('mop', 8, {}, { water: 0.62 }),
      through(spiral, 150),
      through(
        [
          [25, 25],
          [22, 26],
          [28, 25],
        ],
        70,
      ),
      { do: 'wait', seconds: 1.5 },
    );
  }
  paint(studio, ...dipped('dropper', 3.6, { PV19: 1 }, { amount: 1.6 }), { do: 'stroke', samples: [[0, 25, 25, 0.5]] });
  paint(studio, { do: 'wait', seconds: 5 });
  waitTillDry(studio);
  let n = 0;
  let all = 0;
  let out = 0;
  eachCell(studio, [0, 0, 50, 50], (px, py) => {
    const v = coatsAt(studio, 'PV19', px, py);
    const mm = studio.painting.mmPerPx;
    all += v;
    if (Math.hypot((px + 0.5) * mm - 25, (py + 0.5) * mm - 25) > 21.5) out += v;
    if (v > 0.0004) n++;
  });
  return { area: n * studio.painting.cellArea, outside: out / all };
}

export function backRun(ground: Ground): Reading[] {
  const studio = groundFor(ground, 48, 48);
  paint(studio, ...washed([3, 3, 42, 42], 7, CYAN, { amount: 0.9, water: 0.7 }));
  waitForFilm(studio, [8, 8, 30, 30], 0.2);
  paint(studio, ...dipped('dropper', 5, {}, { water: 1 }), { do: 'stroke', samples: [[0, 22, 24, 0.9]] });
  waitTillDry(studio);
  const base = meanCoats(studio, 'PB15_3', [7, 7, 5, 34]);
  const { mmPerPx } = studio.painting;
  const at = (r: number, angle: number) => {
    let sum = 0;
    for (let j = -2; j <= 2; j++)
      for (let i = -2; i <= 2; i++)
        sum += coatsAt(
          studio,
          'PB15_3',
          Math.round((22 + r * Math.cos(angle)) / mmPerPx) + i,
          Math.round((24 + r * Math.sin(angle)) / mmPerPx) + j,
        );
    return sum / 25 / base;
  };
  let rim = 0;
  let inside = 0;
  for (let k = 0; k < 120; k++) {
    const angle = (k * Math.PI) / 60;
    let best = 0;
    for (let r = 1.5; r < 13; r += mmPerPx) best = Math.max(best, at(r, angle));
    rim += best / 120;
    inside += at(1, angle) / 120;
  }
  return [
    { what: 'ring around the drop to the wash', value: rim, least: 1.2 },
    { what: 'inside to the wash', value: inside, most: 0.8 },
  ];
}

export function lifted(ground: Ground, id: string, mixture: Record<string, number>): number {
  const studio = groundFor(ground, 30, 30);
  paint(studio, ...washed([3, 3, 24, 24], 6, mixture, { amount: 0.9 }), { do: 'dry' });
  const area: Area = [14, 10, 2, 10];
  const before = meanCoats(studio, id, area);
  paint(studio, { do: 'tool', tool: 'thirsty', sizeMm: 4 });
  for (let k = 0; k < 5; k++)
    paint(
      studio,
      through(
        k & 1
          ? [
              [15, 23],
              [15, 7],
            ]
          : [
              [15, 7],
              [15, 23],
            ],
        30,
      ),
      { do: 'wait', seconds: 0.5 },
    );
  paint(studio, { do: 'dry' });
  return 1 - meanCoats(studio, id, area) / before;
}

/** How much farther paint gets one way than another: 1 - least over most rms radius of sectors, at the same mass. */
export function anisotropy(ground: Ground): number {
  const studio = groundFor(ground, 60, 60);
  paint(studio, { do: 'mist', amount: 1 }, ...dipped('dropper', 9, CYAN, { amount: 1, water: 1 }));
  paint(studio, { do: 'stroke', samples: [[0, 30, 30, 1]] });
  waitTillDry(studio);
  // second moments along x, y and the diagonals: a round spot has them all alike
  let m = 0;
  let xx = 0;
  let yy = 0;
  let xy = 0;
  const mm = studio.painting.mmPerPx;
  eachCell(studio, [0, 0, 60, 60], (px, py) => {
    const v = coatsAt(studio, 'PB15_3', px, py);
    const x = (px + 0.5) * mm - 30;
    const y = (py + 0.5) * mm - 30;
    m += v;
    xx += v * x * x;
    yy += v * y * y;
    xy += v * x * y;
  });
  const along = [xx, yy, (xx + yy) / 2 + xy, (xx + yy) / 2 - xy].map((s) => Math.sqrt(s / m));
  return 1 - Math.min(...along) / Math.max(...along);
}

export function dryNow(ground: Ground): Reading[] {
  const make = () => {
    const studio = groundFor(ground, 56, 34);
    paint(
      studio,
      ...washed([3, 3, 23, 28], 5, BLUE, { amount: 1 }),
      ...washed([29, 3, 24, 28], 5, { PB15_3: 1, PBr7BS: 9 }, { amount: 1 }),
    );
    paint(
      studio,
      ...dipped('dropper', 4, CYAN),
      { do: 'stroke', samples: [[0, 14, 16, 0.6]] },
      ...dipped('dropper', 4, {}),
      { do: 'stroke', samples: [[0, 41, 16, 0.6]] },
    );
    return studio;
  };
  const waited = make();
  const wet = meanLab(waited, [6, 6, 8, 5]);
  waitTillDry(waited);
  const now = make();
  paint(now, { do: 'dry' });
  const a = new Picture(waited.painting);
  const b = new Picture(now.painting);
  const differences: number[] = [];
  eachCell(waited, [0, 0, 56, 34], (px, py) => {
    if ((px + py) % 3 === 0) differences.push(deltaE2000(a.labAt(px, py), b.labAt(px, py)));
  });
  return [
    { what: 'dried now against waited', value: mean(differences), unit: 'Delta E', most: 2 },
    { what: 'lighter once dry', value: meanLab(waited, [6, 6, 8, 5])[0] - wet[0], unit: 'L*', least: 2, most: 16 },
  ];
}
