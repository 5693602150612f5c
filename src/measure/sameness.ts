import { deltaE2000 } from '@/core/colour/deltaE2000';
import type { ToolId } from '@/core/tools/tools';
import { groundFor, type Behaviour, type Ground } from './behaviour';
import { correlation, line, loaded, mean, meanLab, paint, values, type Area } from './bench';
import { first } from './thorough';

/** What must not depend on how it is computed. */
/** Marks with gaps, where a few cells more of white ground show in the mean. */
const BROKEN: ReadonlySet<ToolId> = new Set<ToolId>(['bright', 'fan', 'house', 'roller']);
const DARK = { PB29: 3, PW6: 1, PBr7BS: 0.6 };

/** The same stroke, once where it crosses borders of tiles and once a whole patch of the surface farther. */
function shifted(ground: Ground, tool: ToolId) {
  const read = (shiftCells: number) => {
    const studio = groundFor(ground, 200, 40);
    const mm = studio.painting.mmPerPx;
    const at = 20 + shiftCells * mm;
    paint(studio, ...loaded(tool, 12, DARK, tool === 'knife' ? { body: 0.8 } : {}), line(at, 20, at + 50, 20.5));
    return values(studio, 'volume', [at - 5, 10, 62, 22]);
  };
  const period = groundFor(ground, 20, 20).painting.surface.size;
  const here = read(0);
  const there = read(period);
  return { mean: Math.abs(mean(here) / mean(there) - 1), together: correlation(here, there) };
}

export const SAMENESS: readonly Behaviour[] = [
  {
    id: 'resolutions',
    says: 'The same millimetres give the same paint at 100, 150 and 300 ppi.',
    measure: (ground) =>
      first(3, ['flat', 'knife', 'round', 'bright', 'filbert', 'fan', 'house', 'roller', 'spray'] as const).flatMap(
        (tool) => {
          const read = (ppi: number) => {
            const studio = groundFor({ ...ground, ppi }, 80, 40);
            const held = tool === 'spray' ? { body: 0.05, blend: 0, distanceMm: 80 } : {};
            paint(studio, ...loaded(tool, 12, { PB29: 1, PW6: 2 }, held), line(8, 20, 70, 20.5, 0.55));
            const area: Area = [16, 17, 36, 6];
            return { lab: meanLab(studio, area), um: mean(values(studio, 'volume', area)) };
          };
          const [a, b, c] = [100, 150, 300].map(read);
          const colour = Math.max(deltaE2000(a.lab, b.lab), deltaE2000(b.lab, c.lab), deltaE2000(a.lab, c.lab));
          const thickness = Math.max(Math.abs(b.um / a.um - 1), Math.abs(c.um / a.um - 1));
          return [
            { what: `${tool}, colour`, value: colour, unit: 'Delta E 2000', most: BROKEN.has(tool) ? 3 : 2 },
            { what: `${tool}, thickness`, value: thickness, most: 0.1 },
          ];
        },
      ),
  },
  {
    id: 'tile-borders',
    says: 'Borders of tiles leave no trace.',
    measure: (ground) =>
      (['flat', 'knife'] as const).flatMap((tool) => {
        const { mean: difference, together } = shifted(ground, tool);
        return [
          { what: `${tool}, difference of the mean`, value: difference, most: 0.004 },
          { what: `${tool}, correlation cell by cell`, value: together, least: 0.99 },
        ];
      }),
  },
  {
    id: 'conservation',
    says: 'No paint is lost or made by any tool.',
    measure(ground) {
      const studio = groundFor(ground, 90, 70);
      const tools: ToolId[] = [
        'flat',
        'bright',
        'knife',
        'rigger',
        'fan',
        'house',
        'worn',
        'roller',
        'sponge',
        'spatter',
        'spray',
        'knife',
        'blender-bristle',
        'stump',
        'rag',
        'scraper',
        'gel',
        'eraser',
      ];
      tools.forEach((tool, i) => {
        paint(studio, { do: 'tool', tool, sizeMm: tool === 'spatter' ? 1 : 12, touch: i % 5 === 3 ? 'dab' : 'drag' });
        if (i < 12) paint(studio, { do: 'load', mixture: { PW6: 1 + i, PB29: 1, PY43: i / 4 }, amount: 1 });
        paint(studio, line(5 + i, 8 + i * 3, 85, 62 - i * 2, 0.6));
        if (i % 6 === 5) paint(studio, { do: 'wait', seconds: 20 * 3600 });
      });
      const worst = Math.max(
        ...Object.values(studio.massBalance()).map((m) =>
          Math.abs((m.film + m.settled + m.strata + m.tool + m.removed) / m.loaded - 1),
        ),
      );
      return [{ what: 'largest error of a pigment', value: worst, most: 1e-4 }];
    },
  },
];
