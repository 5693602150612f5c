import { CUPS } from '@/core/marks/thrown/cup';
import { SpatterStroke } from '@/core/marks/thrown/spatterStroke';
import { SprayStroke } from '@/core/marks/thrown/sprayStroke';
import { defineTool, type Common } from '../definition';
import { DIALS, WAYS } from '../dials';
import { PARTS, round } from '../drawing';

/** Reach of drops that are thrown, mm for each mm of distance. */
export const THROWN = 0.44;
/** Distance at which a spray is as wide as its size, mm. */
const SPRAY_AT_MM = 80;

const common: Common = {
  holds: 'reservoir',
  takesPaint: true,
  cleaned: true,
  dials: [DIALS.size, DIALS.strength, DIALS.blend, DIALS.distance],
};

export const SPRAYS = {
  spatter: defineTool(common, {
    seed: 19,
    sizeMm: 1.2,
    start: { distanceMm: 120, body: 0.15, thin: 0.2 },
    light: ({ blend }) => ({ soft: 0.3, grain: 0.9, smear: blend > 0.5 }),
    carrier: () => CUPS.spatter,
    stroke: (setting, hand) => new SpatterStroke(setting, hand.reservoir()),
    outline: ({ distanceMm }) => round(THROWN * distanceMm),
    picture: () => ({
      parts: PARTS.spatter,
      paint: (full) => ({ d: `M10 ${46 - full * 10}h40v${full * 10}H10z` }),
      gauge: true,
    }),
    card: ['Broken', 'Spatter', 'drops', 'mist and thrown drops'],
  }),
  spray: defineTool(common, {
    seed: 20,
    sizeMm: 24,
    start: { distanceMm: 80, body: 0.05, strength: 0.5 },
    givesByTime: true,
    light: ({ blend }) => ({ soft: 1, grain: 0.12, smear: blend > 0.5 }),
    carrier: () => CUPS.spray,
    stroke: (setting, hand) => new SprayStroke(setting, hand.reservoir()),
    ways: [WAYS.touch],
    outline: ({ sizeMm, distanceMm }) => round(sizeMm * (0.6 + 0.4 * (distanceMm / SPRAY_AT_MM))),
    picture: () => ({
      parts: PARTS.spray,
      paint: (full) => ({ d: 'M24 30h12l20 48H4z', opacity: 0.35 + 0.5 * full }),
      gauge: true,
    }),
    card: ['Lost edges', 'Spray', 'lost', 'a soft mist of real paint'],
  }),
};
