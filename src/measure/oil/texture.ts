import { groundFor, type Behaviour, type Ground } from '@/measure/behaviour';
import { coverage, deviation, line, loaded, mean, paint, values, type Area } from '@/measure/bench';
import type { CommandInput } from '@/core/commands/commands';

/** Roller, worn brush, spatter, spray. */
const DARK = { PB29: 1, PBr7BU: 1.2, PW6: 0.4 };

/** Sizes (mm) and places of the drops in an area: connected cells with paint. */
function drops(ground: Ground, distanceMm: number) {
  const studio = groundFor(ground, 120, 80);
  paint(studio, ...loaded('spatter', 1.2, DARK, { body: 0.15, distanceMm }), line(55, 40, 65, 40, 0.5));
  const { width, height, mmPerPx } = studio.painting;
  const cells = values(studio, 'volume', [0, 0, 120, 80]).map((v) => v > 3);
  const seen = new Uint8Array(cells.length);
  const found: { mm: number; far: number }[] = [];
  for (let start = 0; start < cells.length; start++) {
    if (!cells[start] || seen[start]) continue;
    const stack = [start];
    seen[start] = 1;
    let n = 0;
    let sx = 0;
    let sy = 0;
    while (stack.length > 0) {
      const at = stack.pop()!;
      n++;
      sx += at % width;
      sy += Math.floor(at / width);
      for (const d of [-1, 1, -width, width]) {
        const to = at + d;
        if (to < 0 || to >= width * height || seen[to] || !cells[to]) continue;
        seen[to] = 1;
        stack.push(to);
      }
    }
    const far = Math.hypot((sx / n) * mmPerPx - 60, (sy / n) * mmPerPx - 40);
    found.push({ mm: 2 * Math.sqrt(n / Math.PI) * mmPerPx, far });
  }
  return found;
}

/** Side of the texture's holes: distance at which thickness along a row has forgotten itself, mm. */
function grainSize(rows: number[][], step: number): number {
  const all = rows.flatMap((row) => {
    const m = mean(row);
    return [row.map((v) => v - m)];
  });
  const at = (lag: number) => mean(all.map((row) => mean(row.slice(lag).map((v, i) => v * row[i]))));
  const zero = at(0);
  for (let lag = 1; lag < all[0].length / 2; lag++) if (at(lag) < 0.3 * zero) return lag * step;
  return Infinity;
}

function rolled(ground: Ground, tool: 'roller' | 'worn', amount: number) {
  const studio = groundFor(ground, 110, 50);
  paint(studio, ...loaded(tool, 36, DARK, { amount }), line(4, 25, 106, 25, 0.5));
  const area: Area = [25, 14, 50, 22];
  const step = studio.painting.mmPerPx;
  const rows: number[][] = [];
  for (let y = 16; y < 34; y += 2) rows.push(values(studio, 'volume', [25, y, 50, step]));
  return { coverage: coverage(studio, area), stipple: grainSize(rows, step), um: mean(values(studio, 'volume', area)) };
}

export const TEXTURE: readonly Behaviour[] = [
  {
    id: 'roller',
    says: 'A roller covers fast and leaves a fine stipple; a worn brush leaves holes for the ground.',
    measure(ground) {
      const full = rolled(ground, 'roller', 1);
      const worn = rolled(ground, 'worn', 0.8);
      return [
        { what: 'coverage of a loaded roller', value: full.coverage, least: 0.75 },
        { what: 'size of the stipple', value: full.stipple, unit: 'mm', least: 0.1, most: 3 },
        { what: 'coverage of a worn brush', value: worn.coverage, least: 0.2, most: 0.9 },
      ];
    },
  },
  {
    id: 'spatter',
    says: 'Spatter throws drops of many sizes; from farther away they scatter wider.',
    measure(ground) {
      const near = drops(ground, 60);
      const far = drops(ground, 200);
      const sizes = near.map((d) => d.mm).sort((a, b) => a - b);
      const at = (share: number) => sizes[Math.floor((sizes.length - 1) * share)];
      return [
        { what: 'drops', value: near.length, least: 10 },
        { what: 'median size', value: at(0.5), unit: 'mm', least: 0.3, most: 2 },
        { what: 'largest tenth to median', value: at(0.9) / at(0.5), least: 1.3, most: 6 },
        {
          what: 'scatter from afar to from near',
          value: mean(far.map((d) => d.far)) / mean(near.map((d) => d.far)),
          least: 1.5,
        },
      ];
    },
  },
  {
    id: 'spray',
    says: 'A spray is dense in the middle, lost at its rim, and builds up in small steps.',
    measure(ground) {
      const studio = groundFor(ground, 90, 60);
      const pass: CommandInput = line(10, 30, 80, 30, 0.6);
      paint(studio, ...loaded('spray', 24, DARK, { body: 0.05, distanceMm: 80, strength: 1, blend: 0 }), pass);
      const at = (y: number) => mean(values(studio, 'volume', [35, y - 1, 20, 2]));
      const first = at(30);
      const rim = [19, 21, 23, 25, 27, 30].map(at);
      paint(studio, pass);
      return [
        { what: 'rim to middle', value: rim[0] / rim[5], most: 0.25 },
        {
          what: 'largest step towards the middle',
          value: Math.max(...rim.slice(1).map((v, i) => v - rim[i])) / rim[5],
          most: 0.45,
        },
        { what: 'twice to once', value: at(30) / first, least: 1.4, most: 2.2 },
        {
          what: 'evenness in the middle',
          value: deviation(values(studio, 'volume', [35, 29, 20, 2])) / at(30),
          most: 1,
        },
      ];
    },
  },
];
