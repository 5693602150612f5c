import { FINGER } from '@/core/marks/brush/brushForms';
import { BrushStroke } from '@/core/marks/brush/brushStroke';
import { RUBS, SmudgeStroke } from '@/core/marks/dry/smudgeStroke';
import { Together } from '@/core/marks/together';
import { defineTool } from '../definition';
import { PARTS } from '../drawing';
import { hairCarrier } from './brushes';

const form = () => FINGER;

export const FINGERS = {
  finger: defineTool(
    {},
    {
      seed: 27,
      sizeMm: 9,
      holds: 'reservoir',
      draws: true,
      unspoken: true,
      brush: form,
      light: () => ({ soft: 0.45, grain: 0.1, smear: true }),
      carrier: hairCarrier(form),
      stroke(setting, hand) {
        const smudge = new SmudgeStroke(setting, RUBS.finger);
        const { layer } = setting;
        if (layer.kind !== 'paint' || layer.basin || !layer.tiles.some((tile) => tile?.volume)) return smudge;
        // wet paint is drawn along too
        const drawn = { ...setting, settings: { ...setting.settings, blend: 1 } };
        const brush = new BrushStroke(drawn, FINGER, hand.footprint(FINGER), hand.reservoir());
        return layer.tiles.some((tile) => tile?.wash?.dusty) ? new Together([smudge, brush]) : brush;
      },
      picture: () => ({ parts: PARTS.finger }),
      card: ['Rubs and lifts dust', 'Finger', 'lost', 'rubs dust into the tooth'],
    },
  ),
};
