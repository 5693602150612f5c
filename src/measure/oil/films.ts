import { deltaE2000 } from '@/core/colour/deltaE2000';
import { chroma } from '@/core/colour/colorimetry';
import { Picture, STUDIO_LIGHT } from '@/core/picture/picture';
import { readRegion } from '@/core/picture/readings';
import { groundFor, type Behaviour, type Ground } from '@/measure/behaviour';
import { correlation, field, line, loaded, mean, meanLab, paint, values, type Area } from '@/measure/bench';
import type { Studio } from '@/core/journal/studio';

/** Films over films: glaze, scumble, drying, light. */
const everything = (studio: Studio) => ({
  left: 0,
  top: 0,
  right: studio.painting.width,
  bottom: studio.painting.height,
});

function read(studio: Studio, picture: Picture, [x, y, w, h]: Area) {
  picture.update(everything(studio));
  const { mmPerPx } = studio.painting;
  const px = (mm: number) => Math.round(mm / mmPerPx);
  return readRegion(picture, px(x), px(y), px(x + w), px(y + h));
}

/** Mean lit luminance (green code) of an area. */
function litMean(picture: Picture, [x, y, w, h]: Area): number {
  const { painting } = picture;
  const { mmPerPx, width, arena } = painting;
  const out: number[] = [];
  for (let py = Math.round(y / mmPerPx); py < Math.round((y + h) / mmPerPx); py++) {
    for (let px = Math.round(x / mmPerPx); px < Math.round((x + w) / mmPerPx); px++) {
      out.push((arena.u32[picture.lit + py * width + px] >>> 8) & 255);
    }
  }
  return mean(out);
}

function glaze(ground: Ground, vehicle: 'oil' | 'acrylic') {
  const studio = groundFor(ground, 70, 50);
  paint(studio, ...field([5, 5, 55, 40], { PW6: 6, PY43: 0.5 }, 12, 0.9), { do: 'dry' });
  const picture = new Picture(studio.painting);
  const area: Area = [15, 15, 30, 20];
  const before = read(studio, picture, area);
  paint(studio, { do: 'tool', tool: 'flat', sizeMm: 14, body: 0.05, thin: 0.95, vehicle });
  for (let y = 10; y < 46; y += 9) {
    paint(
      studio,
      { do: 'rinse' },
      { do: 'load', mixture: { PBr7BS: 1, PR101T: 0.5 }, amount: 0.15 },
      line(5, y, 60, y),
    );
  }
  const after = read(studio, picture, area);
  return [
    { what: `fall of lightness, ${vehicle}`, value: before.meanLab[0] - after.meanLab[0], least: 5 },
    { what: `rise of chroma, ${vehicle}`, value: chroma(after.meanLab) - chroma(before.meanLab), least: 5 },
    { what: `relief's shading kept, ${vehicle}`, value: after.shading / before.shading, least: 0.8 },
  ];
}

export const FILMS: readonly Behaviour[] = [
  {
    id: 'glaze',
    says: 'A glaze deepens dry light paint and leaves its relief to the light, in oil and in acrylic.',
    measure: (ground) => [...glaze(ground, 'oil'), ...glaze(ground, 'acrylic')],
  },
  {
    id: 'scumble',
    says: 'A thin scumble of white over dry dark turns cool.',
    measure(ground) {
      const studio = groundFor(ground, 70, 50);
      const black = { PBk9: 1, PBr7BU: 1 };
      paint(studio, ...field([5, 5, 55, 40], black, 14), ...field([5, 5, 55, 40], black, 14), { do: 'dry' });
      const before = meanLab(studio, [15, 15, 30, 20]);
      paint(studio, ...loaded('flat', 14, { PW6: 1 }, { body: 0.7, thin: 0.6, amount: 0.25 }));
      for (let y = 12; y < 42; y += 8) paint(studio, line(8, y, 58, y, 0.35));
      return [{ what: 'fall of b*', value: before[2] - meanLab(studio, [15, 15, 30, 20])[2], least: 3 }];
    },
  },
  {
    id: 'dry-brush',
    says: 'Relief of dry paint catches a dry brush.',
    measure(ground) {
      const studio = groundFor(ground, 80, 50);
      paint(studio, ...field([5, 5, 65, 40], { PBr7BU: 1 }, 12, 0.95), { do: 'dry' });
      const area: Area = [20, 16, 35, 16];
      const picture = new Picture(studio.painting);
      picture.update(everything(studio));
      const { width, mmPerPx, arena } = studio.painting;
      const relief: number[] = [];
      for (let py = Math.round(area[1] / mmPerPx); py < Math.round((area[1] + area[3]) / mmPerPx); py++) {
        for (let px = Math.round(area[0] / mmPerPx); px < Math.round((area[0] + area[2]) / mmPerPx); px++) {
          relief.push(arena.f32[picture.relief + py * width + px]);
        }
      }
      paint(studio, ...loaded('flat', 20, { PW6: 1 }, { amount: 0.08, body: 0.8 }), line(8, 24, 68, 24, 0.25));
      const laid = values(studio, 'volume', area);
      return [
        { what: 'correlation with the relief', value: correlation(laid, relief), least: 0.1 },
        { what: 'coverage', value: mean(laid.map((v) => (v > 3 ? 1 : 0))), least: 0.05, most: 0.8 },
      ];
    },
  },
  {
    id: 'sealing',
    says: 'Drying changes the picture by next to nothing, lean paint and fat, oil and acrylic.',
    measure(ground) {
      const studio = groundFor(ground, 60, 40);
      paint(
        studio,
        ...field([4, 4, 50, 30], { PB29: 3, PG7: 0.3, PW6: 0.5 }, 12),
        ...loaded('round', 5, { PY35: 3, PY43: 1 }, { solvent: 0.6 }),
        line(8, 10, 50, 30),
        ...loaded('flat', 6, { PR188: 1 }, { vehicle: 'acrylic', thin: 0.5, amount: 0.3 }),
        line(30, 8, 52, 20),
      );
      const areas = Array.from({ length: 20 }, (_, i): Area => [4 + (i % 5) * 10, 4 + Math.floor(i / 5) * 7, 3, 3]);
      const before = areas.map((a) => meanLab(studio, a));
      paint(studio, { do: 'dry' });
      const worst = Math.max(...areas.map((a, i) => deltaE2000(before[i], meanLab(studio, a))));
      return [{ what: 'largest Delta E 2000', value: worst, most: 0.5 }];
    },
  },
  {
    id: 'varnish',
    says: 'Lean paint dries matte and pale; varnish deepens it. Unlit colour does not know of either.',
    measure(ground) {
      const studio = groundFor(ground, 60, 40);
      paint(studio, ...field([5, 5, 50, 30], { PBk9: 1, PB29: 1 }, 12), { do: 'dry' });
      paint(studio, { do: 'tool', tool: 'flat', sizeMm: 12, solvent: 0.6 });
      for (let y = 9; y < 34; y += 7)
        paint(studio, { do: 'load', mixture: { PBk9: 1, PB29: 1 }, amount: 1 }, line(5, y, 55, y));
      paint(studio, { do: 'dry' });
      const picture = new Picture(studio.painting);
      const area: Area = [15, 12, 30, 14];
      const lit = (finish: number) => {
        picture.light = { ...STUDIO_LIGHT, finish };
        picture.update(everything(studio));
        return { code: litMean(picture, area), lab: read(studio, picture, area).meanLab };
      };
      const painted = lit(0.5);
      const varnished = lit(1);
      const dull = lit(0);
      return [
        { what: 'lit code as painted less varnished', value: painted.code - varnished.code, least: 4 },
        { what: 'lit code with a matte finish less as painted', value: dull.code - painted.code, least: -1 },
        { what: 'change of unlit colour', value: deltaE2000(painted.lab, varnished.lab), most: 0 },
      ];
    },
  },
];
