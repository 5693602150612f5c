import { groundFor, type Behaviour, type Ground } from '@/measure/behaviour';
import {
  correlation,
  coverage,
  deviation,
  field,
  grain,
  line,
  loaded,
  mean,
  paint,
  values,
  type Area,
} from '@/measure/bench';
import type { CommandInput } from '@/core/commands/commands';

/** The painting knife. */
const WHITE = { PW6: 4, PY43: 0.6 };
const EARTH = { PBr7BS: 1, PB29: 0.5 };

const knife = (sizeMm: number, more: object = {}): CommandInput[] => [
  { do: 'tool', tool: 'knife', sizeMm, body: 0.8, hold: 'flat', ...more },
  { do: 'rinse' },
];

/** Touches of thick paint, side by side: brushwork to be knocked down. */
function brushwork(ground: Ground, body: number) {
  const studio = groundFor(ground, 60, 60);
  for (let y = 8; y < 54; y += 5.5) {
    for (let x = 6; x < 50; x += 8) {
      paint(studio, ...loaded('filbert', 9, { PG7: 0.2, PW6: 1, PY43: 0.6 + (x % 3) / 3 }, { amount: 1.8, body }));
      paint(studio, line(x, y, x + 7, y + 2, 0.5));
    }
  }
  return studio;
}

export const KNIFE: readonly Behaviour[] = [
  {
    id: 'slab',
    says: 'The knife lays an even slab with a ridge at its side.',
    measure(ground) {
      const studio = groundFor(ground, 90, 36);
      paint(studio, ...knife(16), { do: 'load', mixture: WHITE, amount: 1 }, line(10, 18, 60, 18, 0.4));
      const rows: number[] = [];
      const step = studio.painting.mmPerPx;
      for (let y = 6; y < 30; y += step) rows.push(mean(values(studio, 'volume', [28, y, 8, step])));
      const inside = rows.filter((_, i) => Math.abs(6 + i * step - 18) < 6);
      const slab = mean(inside);
      return [
        { what: 'thickness', value: slab, unit: 'um', least: 100, most: 3000 },
        { what: 'variation inside', value: deviation(inside) / slab, most: 0.15 },
        { what: 'ridge at the side to slab', value: Math.max(...rows) / slab, least: 1.2, most: 2.5 },
        { what: 'bare ground inside', value: 1 - coverage(studio, [20, 12, 25, 12]), most: 0.01 },
      ];
    },
  },
  {
    id: 'scraping',
    says: 'Scraped back, what stays lies in the valleys of the grain.',
    measure(ground) {
      const studio = groundFor(ground, 60, 60);
      paint(studio, ...field([5, 5, 50, 50], EARTH, 14));
      const area: Area = [24, 14, 10, 30];
      const before = mean(values(studio, 'volume', area));
      paint(studio, { do: 'tool', tool: 'scraper', sizeMm: 18 }, line(29, 6, 29, 56, 1));
      const left = values(studio, 'volume', area);
      return [
        { what: 'correlation with depth', value: -correlation(left, grain(studio, area)), least: 0.4 },
        { what: 'share that stays', value: mean(left) / before, most: 0.6 },
      ];
    },
  },
  {
    id: 'knocking-down',
    says: 'Knocking brushwork down levels it and does not bare the ground.',
    measure(ground) {
      const studio = brushwork(ground, 0.5);
      const area: Area = [22, 14, 12, 30];
      const relief = () => deviation(values(studio, 'volume', area));
      const before = relief();
      const bare = coverage(studio, area);
      paint(studio, ...knife(18), line(28, 6, 28, 54, 0.6));
      return [
        { what: 'ground bared', value: bare - coverage(studio, area), most: 0.01 },
        { what: 'roughness left', value: relief() / before, most: 0.8 },
      ];
    },
  },
  {
    id: 'more-body',
    says: 'Gel gives a thin passage the volume to be knifed without baring the ground, and no colour.',
    measure(ground) {
      const thin = () => {
        const studio = groundFor(ground, 60, 60);
        for (let y = 12; y < 50; y += 8)
          paint(studio, ...loaded('flat', 14, { PG7: 0.3, PW6: 1 }, { amount: 0.45 }), line(5, y, 55, y));
        return studio;
      };
      const area: Area = [24, 14, 10, 30];
      const pressed = (studio: ReturnType<typeof thin>) => {
        const before = coverage(studio, area);
        paint(studio, ...knife(18), line(29, 6, 29, 54, 0.9));
        return before - coverage(studio, area);
      };
      const plain = thin();
      const given = thin();
      const um = mean(values(given, 'volume', area));
      const pigment = mean(values(given, 'PW6', area));
      for (let x = 14; x < 50; x += 8) paint(given, { do: 'tool', tool: 'gel', sizeMm: 20 }, line(x, 6, x, 54, 0.8));
      return [
        { what: 'volume', value: mean(values(given, 'volume', area)) / um, unit: 'times', least: 1.8 },
        {
          what: 'pigment',
          value: mean(values(given, 'PW6', area)) / pigment,
          unit: 'times',
          least: 0.999,
          most: 1.001,
        },
        {
          what: 'ground bared by a pressed knife, without gel less with',
          value: pressed(plain) - pressed(given),
          least: 0,
        },
      ];
    },
  },
  {
    id: 'marbling',
    says: 'Drawn over two wet colours, a clean knife pulls them into a marbled band.',
    measure(ground) {
      const studio = groundFor(ground, 90, 40);
      paint(
        studio,
        ...field([5, 5, 40, 30], { PB29: 1, PW6: 1 }, 12, 0.6),
        ...field([45, 5, 40, 30], { PY35: 1 }, 12, 0.6),
      );
      const area: Area = [50, 12, 12, 16];
      const share = () => mean(values(studio, 'PB29', area));
      const before = share();
      paint(studio, ...knife(16), line(30, 20, 75, 20, 0.75));
      const blue = values(studio, 'PB29', area);
      const yellow = values(studio, 'PY35', area);
      const shares = blue.map((b, i) => b / (b + yellow[i] + 1e-9));
      return [
        { what: 'blue brought over', value: mean(blue) - before, unit: 'coats', least: 0.01 },
        { what: 'variation of the mixture', value: deviation(shares), least: 0.02 },
      ];
    },
  },
  {
    id: 'impasto',
    says: 'Stiff paint stands millimetres high and keeps furrows; fluid paint levels.',
    measure(ground) {
      const studio = groundFor(ground, 80, 60);
      for (let i = 0; i < 8; i++) {
        paint(
          studio,
          ...loaded('filbert', 9, { PW6: 1 }, { amount: 3, body: 1 }),
          line(12, 12 + i * 0.4, 26, 13 + i * 0.4, 0.45),
        );
      }
      const furrows = (body: number, y: number) => {
        paint(studio, ...loaded('flat', 12, { PW6: 1 }, { amount: 1.5, body }), line(36, y, 76, y, 0.55));
        const step = studio.painting.mmPerPx;
        const rows: number[] = [];
        for (let at = y - 4; at < y + 4; at += step) rows.push(mean(values(studio, 'volume', [45, at, 15, step])));
        return deviation(rows);
      };
      const stiff = furrows(0.95, 15);
      const fluid = furrows(0.05, 40);
      const high = values(studio, 'volume', [8, 8, 24, 12]).sort((a, b) => a - b);
      return [
        { what: 'highest hundredth', value: high[Math.floor(high.length * 0.99)] / 1000, unit: 'mm', least: 1 },
        { what: 'depth of furrows, stiff to fluid', value: stiff / fluid, least: 1.8 },
      ];
    },
  },
];
