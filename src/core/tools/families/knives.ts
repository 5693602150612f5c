import type { HeldTool } from '@/core/marks/heldTool';
import { bladeWidthMm, knifeCarrier, KNIVES } from '@/core/marks/knife/knifeForm';
import { KnifeStroke } from '@/core/marks/knife/knifeStroke';
import { defineTool, type Common } from '../definition';
import { DIALS, WAYS } from '../dials';
import { PARTS, square } from '../drawing';

/** A slab that a knife leaves, um. */
const SLAB_UM = 260;
/** How thick a blade looks along its way, mm. */
const BLADE_MM = 0.8;

const common: Common = {
  holds: 'reservoir',
  mixes: true,
  fills: { of: 'film', coversUm: ({ strength }) => SLAB_UM * strength },
  light: ({ blend }) => ({ soft: 0.08, grain: 0, smear: blend > 0.5 }),
  carrier: ({ sizeMm }) => knifeCarrier(sizeMm),
  outline: (held: HeldTool) => square(bladeWidthMm(held), BLADE_MM),
  picture: () => ({
    parts: PARTS.knife,
    paint: (full) => ({ d: `M${20 - full * 2} ${64 - full * 14}l10 ${22 + full * 14} 10-${22 + full * 14}z` }),
    gauge: true,
  }),
};

export const KNIFE_TOOLS = {
  knife: defineTool(common, {
    seed: 16,
    sizeMm: 16,
    start: { blend: 0.3 },
    takesPaint: true,
    takesUp: true,
    cleaned: true,
    stroke: (setting, hand) => new KnifeStroke(setting, KNIVES.knife, hand.reservoir()),
    dials: [DIALS.size, DIALS.strength, DIALS.blend, DIALS.body],
    ways: [WAYS.blade],
    card: ['Found edges', 'Knife', 'found', 'slabs, lines, knocking down'],
  }),
  scraper: defineTool(common, {
    seed: 17,
    sizeMm: 24,
    start: { blend: 1 },
    stroke: (setting, hand) => new KnifeStroke(setting, KNIVES.scraper, hand.reservoir()),
    dials: [DIALS.size, DIALS.strength, DIALS.blend],
    card: ['Takes off, builds up', 'Scraper', 'scrapes back', 'down to the valleys of the grain'],
  }),
};
