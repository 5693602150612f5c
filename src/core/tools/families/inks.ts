import { InkStroke, PENS, type PenName } from '@/core/marks/wet/inkStroke';
import { defineTool, type Own } from '../definition';
import { PARTS } from '../drawing';

/** What a pen is dipped into before anything is said. */
const INK = { PBk9: 1 };

const pen = (name: PenName, own: Own) =>
  defineTool(
    {
      holds: 'made',
      takesPaint: true,
      draws: true,
      forWater: true,
      unspoken: true,
      light: ({ blend }) => ({ soft: 0.08, grain: 0, smear: blend > 0.5 }),
      stroke: (setting, hand) => new InkStroke(setting, PENS[name], hand.lastMixture ?? INK),
      bare: () => 'ivory black, until it is loaded',
      picture: () => ({ parts: PARTS.pen }),
    },
    own,
  );

const MARK = 'Ink';

export const INKS = {
  'ink-fast': pen('ink-fast', {
    seed: 45,
    sizeMm: 0.7,
    card: [MARK, 'Waterproof pen', 'line', 'stays under every wash'],
  }),
  'ink-soluble': pen('ink-soluble', {
    seed: 46,
    sizeMm: 0.7,
    card: [MARK, 'Soluble pen', 'line, runs', 'a wash takes part of it up'],
  }),
  'pen-bold': pen('pen-bold', {
    seed: 47,
    sizeMm: 3,
    card: [MARK, 'Bold pen', 'line to mass', 'swells with pressure'],
  }),
  marker: pen('marker', { seed: 48, sizeMm: 4, card: [MARK, 'Felt marker', 'found', 'one width, see-through'] }),
};
