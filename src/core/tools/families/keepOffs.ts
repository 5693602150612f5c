import { KeepOffStroke } from '@/core/marks/wet/keepOffStroke';
import { STICKS } from '@/core/marks/dry/stickForms';
import { StickStroke } from '@/core/marks/dry/stickStroke';
import { defineTool, type Common, type InHand } from '../definition';
import { PARTS } from '../drawing';

/** What keeps washes off the paper, and what takes it off again. */
const common: Common = {
  forWater: true,
  unspoken: true,
  bare: () => 'keeps water off',
  picture: () => ({ parts: PARTS.bottle }),
};

const KEEPS = 'Lifts, keeps white';

/** What a wax crayon is coloured with; a candle is clear. */
const colourOf = ({ lastMixture }: InHand) => lastMixture;

export const KEEP_OFFS = {
  masking: defineTool(common, {
    seed: 42,
    sizeMm: 1.6,
    stroke: (setting) => new KeepOffStroke(setting, 'masking'),
    card: [KEEPS, 'Masking fluid', 'found, white', 'keeps every wash off'],
  }),
  crepe: defineTool(common, {
    seed: 43,
    sizeMm: 14,
    stroke: (setting) => new KeepOffStroke(setting, 'crepe'),
    card: [KEEPS, 'Crepe rubber', 'bares', 'rubs masking fluid off'],
  }),
  wax: defineTool(common, {
    seed: 44,
    sizeMm: 8,
    holds: 'made',
    takesPaint: true,
    draws: true,
    stick: STICKS.wax,
    fills: { of: 'dust', form: STICKS.wax },
    carries: colourOf,
    stroke(setting, hand) {
      const colour = colourOf(hand);
      return colour ? new StickStroke(setting, STICKS.wax, colour) : new KeepOffStroke(setting, 'wax');
    },
    card: [KEEPS, 'Wax', 'broken, white', 'a candle; with a colour, a crayon'],
  }),
};
