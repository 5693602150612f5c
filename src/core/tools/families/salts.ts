import { SaltStroke } from '@/core/marks/wet/saltStroke';
import { defineTool } from '../definition';
import { PARTS } from '../drawing';

export const SALTS = {
  salt: defineTool(
    {},
    {
      seed: 41,
      sizeMm: 1.1,
      forWater: true,
      meetsWater: true,
      unspoken: true,
      stroke: (setting) => new SaltStroke(setting),
      bare: () => 'salt',
      picture: () => ({ parts: PARTS.shaker }),
      card: ['Broken, with water', 'Salt', 'stars', 'strewn on a wash that shines'],
    },
  ),
};
