import { EraserStroke } from '@/core/marks/dry/eraserStroke';
import { KneadedStroke } from '@/core/marks/dry/kneadedStroke';
import { defineTool, type Common } from '../definition';
import { WAYS } from '../dials';
import { PARTS } from '../drawing';

const common: Common = {
  draws: true,
  light: ({ tip }) => ({ soft: tip === 'hard' ? 0.15 : 0.8, grain: 0, rub: true }),
};

export const ERASERS = {
  'eraser-kneaded': defineTool(common, {
    seed: 28,
    sizeMm: 8,
    unspoken: true,
    stroke: (setting) => new KneadedStroke(setting),
    picture: () => ({ parts: PARTS.kneaded }),
    card: ['Rubs and lifts dust', 'Kneaded eraser', 'lost', 'pressed on, it lifts lights'],
  }),
  eraser: defineTool(common, {
    seed: 29,
    sizeMm: 6,
    stroke: (setting) => new EraserStroke(setting),
    ways: [WAYS.tip],
    bare: ({ tip }) => `${tip} tip`,
    picture: ({ tip }) => ({ parts: tip === 'hard' ? PARTS.hardEraser : PARTS.softEraser }),
    card: ['Takes off, builds up', 'Rub-out', 'opens the ground', 'wet or dry paint'],
  }),
};
