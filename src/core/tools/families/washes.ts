import { WASH_FORMS, type WashFormName } from '@/core/marks/wet/washForms';
import { WASH_CARRIER } from '@/core/marks/wet/washLoad';
import { DropStroke, SplatterStroke, WashStroke } from '@/core/marks/wet/washStroke';
import { defineTool, type Common, type Own } from '../definition';
import { DIALS, WAYS } from '../dials';
import { PARTS, round, square, washPicture } from '../drawing';
import { THROWN } from './sprays';

/** Tools that carry water. */
const common: Common = {
  holds: 'belly',
  takesPaint: true,
  cleaned: true,
  forWater: true,
  meetsWater: true,
  unspoken: true,
  carrier: () => WASH_CARRIER,
  dials: [DIALS.size, DIALS.howStrong, DIALS.howWet, DIALS.blend],
  bare: (_, level) => (level > 0.01 ? 'clear water' : 'not loaded yet'),
};

/** A brush that lays washes. */
function wash(name: WashFormName, water: number, own: Own) {
  const form = WASH_FORMS[name];
  return defineTool(
    {
      ...common,
      takesUp: true,
      wash: form,
      fills: { of: 'wash', form },
      light: ({ blend }) => ({ soft: 0.45, grain: 0.1, smear: blend > 0.5 }),
      stroke: (setting, hand) => new WashStroke(setting, form, hand.belly(form)),
      ways: [WAYS.touch],
      outline: ({ sizeMm }) => (form.shape === 'bar' ? square(sizeMm, form.thick * sizeMm) : round(sizeMm)),
      picture: () => washPicture(form),
    },
    { ...own, start: { water, strength: 0.5, ...own.start } },
  );
}

const WASHES = 'Washes';
const BROKEN = 'Broken, with water';

export const WASH_TOOLS = {
  'wash-round': wash('wash-round', 0.65, {
    seed: 30,
    sizeMm: 7,
    card: [WASHES, 'Wash round', 'found or lost', 'a point and a belly of water'],
  }),
  mop: wash('mop', 0.75, { seed: 31, sizeMm: 16, card: [WASHES, 'Mop', 'wash', 'holds most water'] }),
  'wash-flat': wash('wash-flat', 0.7, {
    seed: 32,
    sizeMm: 22,
    card: [WASHES, 'Flat wash', 'found, wash', 'bands, edges, skies'],
  }),
  hake: wash('hake', 0.75, { seed: 33, sizeMm: 45, card: [WASHES, 'Hake', 'wash', 'wide and soft, wets the sheet'] }),
  'wash-rigger': wash('wash-rigger', 0.5, {
    seed: 34,
    sizeMm: 1.2,
    card: [WASHES, 'Wash rigger', 'line', 'twigs and rigging'],
  }),
  'dry-brush': wash('dry-brush', 0.1, {
    seed: 35,
    sizeMm: 12,
    card: [BROKEN, 'Dry brush', 'broken', 'meets the peaks of the paper'],
  }),
  'sponge-natural': wash('sponge-natural', 0.4, {
    seed: 36,
    sizeMm: 22,
    start: { touch: 'dab' },
    card: [BROKEN, 'Natural sponge', 'broken', 'leaves and stones'],
  }),
  gouache: wash('gouache', 0.3, {
    seed: 37,
    sizeMm: 4,
    card: [WASHES, 'Body colour', 'found', 'opaque, over dry washes'],
  }),
  thirsty: wash('thirsty', 0.12, {
    seed: 38,
    sizeMm: 7,
    thirsty: true,
    cleaned: undefined,
    dials: [DIALS.size, DIALS.howStrong, DIALS.howWet],
    bare: () => 'clean and damp',
    card: ['Lifts, keeps white', 'Thirsty brush', 'lost', 'damp: lifts, softens edges'],
  }),
  dropper: defineTool(common, {
    seed: 39,
    sizeMm: 4,
    start: { water: 0.9, strength: 0.5 },
    takesUp: true,
    givesByTime: true,
    wash: WASH_FORMS.dropper,
    stroke: (setting, hand) => new DropStroke(setting, WASH_FORMS.dropper, hand.belly(WASH_FORMS.dropper)),
    picture: () => ({ parts: PARTS.dropper, paint: () => ({ d: 'M30 64q7 9 0 16-7-7 0-16z' }), gauge: true }),
    card: [BROKEN, 'Dropper', 'drop', 'charges a wash, makes back-runs; held still it goes on'],
  }),
  splatter: defineTool(common, {
    seed: 40,
    sizeMm: 1.2,
    start: { water: 0.8, strength: 0.5, distanceMm: 120 },
    wash: WASH_FORMS.splatter,
    stroke: (setting, hand) => new SplatterStroke(setting, WASH_FORMS.splatter, hand.belly(WASH_FORMS.splatter)),
    dials: [...(common.dials ?? []), DIALS.distance],
    outline: ({ distanceMm }) => round(THROWN * distanceMm),
    picture: () => ({ parts: PARTS.flung, paint: () => ({ d: 'M23 28h14l-7 27z' }), gauge: true }),
    card: [BROKEN, 'Splatter', 'drops', 'flung from a full brush'],
  }),
};
