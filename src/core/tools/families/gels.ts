import { GelStroke } from '@/core/marks/gelStroke';
import { defineTool } from '../definition';
import { DIALS } from '../dials';
import { PARTS } from '../drawing';

export const GELS = {
  gel: defineTool(
    {},
    {
      seed: 18,
      sizeMm: 20,
      start: { gel: 1 },
      stroke: (setting) => new GelStroke(setting),
      dials: [DIALS.size, DIALS.strength, DIALS.gel],
      bare: () => 'gel',
      picture: () => ({ parts: PARTS.jar }),
      card: ['Takes off, builds up', 'More body', 'none', 'gives wet paint gel before knifing'],
    },
  ),
};
