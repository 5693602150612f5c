import { formOf, FORMS, type BrushForm, type FormName } from '@/core/marks/brush/brushForms';
import { tuftCapacityUm } from '@/core/marks/brush/brushInterior';
import { BrushStroke } from '@/core/marks/brush/brushStroke';
import type { HeldTool } from '@/core/marks/heldTool';
import { RUBS, SmudgeStroke, type RubForm } from '@/core/marks/dry/smudgeStroke';
import type { StrokeInProgress, StrokeSetting } from '@/core/marks/stampedStroke';
import { Together } from '@/core/marks/together';
import { WASH_FORMS } from '@/core/marks/wet/washForms';
import { BlotStroke } from '@/core/marks/wet/washStroke';
import { defineTool, type Common, type InHand, type Own, type ToolDefinition } from '../definition';
import { DIALS, WAYS } from '../dials';
import { brushPicture, round, square } from '../drawing';

/** What film of paint a brush leaves when it covers, um: by the body of the paint. */
export const filmUm = ({ strength, body }: HeldTool): number => strength * (40 + 70 * body);

/** Where hair holds paint. */
export const hairCarrier =
  (formOfHeld: (held: HeldTool) => BrushForm) => (held: HeldTool, hand: InHand, cellArea: number) => {
    const form = formOfHeld(held);
    const { across, along, cellArea: cells, hairy } = hand.footprint(form);
    const tuftUm = tuftCapacityUm(form, held.sizeMm);
    const { tipUm, unevenness } = form;
    return { across, along, cellMm2: cells * cellArea, hairy, tipUm, tuftUm, unevenness };
  };

/** The stroke of a brush; one that rubs moves dust as well, and where there is no wet paint only that. */
function stroke(setting: StrokeSetting, hand: InHand, form: BrushForm, rubs?: RubForm): StrokeInProgress {
  const { layer } = setting;
  const smudge = rubs && layer.tiles.some((tile) => tile?.wash?.dusty) ? new SmudgeStroke(setting, rubs) : undefined;
  if (smudge && !layer.tiles.some((tile) => tile?.volume)) return smudge;
  const brush = new BrushStroke(setting, form, hand.footprint(form), hand.reservoir());
  return smudge ? new Together([smudge, brush]) : brush;
}

/** A brush of a form. @param rubs how it moves dust */
function brush(
  name: FormName,
  { rubs, ...own }: Own & { readonly rubs?: RubForm; readonly soft?: true },
): ToolDefinition {
  const { soft, ...rest } = own;
  const { naturalBlend, shape, aspect } = FORMS[name];
  const form = ({ hair }: HeldTool) => formOf(name, soft ? hair : 'bristle');
  const blender = naturalBlend === 1;
  const common: Common = {
    holds: 'reservoir',
    takesPaint: true,
    cleaned: true,
    mixes: true,
    takesUp: true,
    ...(blender && { blender }),
    brush: form,
    fills: { of: 'film', coversUm: filmUm },
    light: ({ blend }) => ({ soft: 0.45, grain: 0.1, smear: blend > 0.5 || blender || rubs !== undefined }),
    carrier: hairCarrier(form),
    stroke: (setting, hand) => stroke(setting, hand, form(setting.settings), rubs),
    dials: [DIALS.size, DIALS.strength, DIALS.blend, DIALS.body],
    ways: soft ? [WAYS.hair, WAYS.touch] : [WAYS.touch],
    outline: ({ sizeMm }) =>
      shape === 'round' || shape === 'dome' ? round(sizeMm, sizeMm * aspect) : square(sizeMm, sizeMm * aspect),
    picture: (held) => brushPicture(form(held), held.hair === 'soft'),
  };
  return defineTool(common, { ...rest, start: { blend: naturalBlend, ...rest.start } });
}

const FOUND = 'Found edges';
const LINES = 'Soft ends and lines';
const BROKEN = 'Broken';
const LOST = 'Lost edges';

export const BRUSHES = {
  flat: brush('flat', {
    seed: 2,
    sizeMm: 12,
    soft: true,
    card: [FOUND, 'Flat', 'found', 'long hair, holds much paint'],
  }),
  bright: brush('bright', {
    seed: 6,
    sizeMm: 10,
    soft: true,
    card: [FOUND, 'Bright', 'found', 'short and stiff, digs in'],
  }),
  filbert: brush('filbert', {
    seed: 3,
    sizeMm: 9,
    soft: true,
    card: [LINES, 'Filbert', 'found, soft ends', 'planes and petals'],
  }),
  round: brush('round', {
    seed: 4,
    sizeMm: 5,
    soft: true,
    card: [LINES, 'Round', 'line to mass', 'drawing with paint'],
  }),
  rigger: brush('rigger', {
    seed: 7,
    sizeMm: 2,
    start: { body: 0.25, thin: 0.3 },
    card: [LINES, 'Rigger', 'line', 'long thin lines of fluid paint'],
  }),
  fan: brush('fan', { seed: 8, sizeMm: 16, soft: true, card: [BROKEN, 'Fan', 'broken', 'grass, hair, water'] }),
  house: brush('house', {
    seed: 9,
    sizeMm: 40,
    soft: true,
    card: [FOUND, 'House brush', 'found, ragged', 'covers fast'],
  }),
  worn: brush('worn', { seed: 10, sizeMm: 22, card: [BROKEN, 'Worn brush', 'broken', 'leaves holes for the ground'] }),
  roller: brush('roller', { seed: 11, sizeMm: 50, card: [BROKEN, 'Roller', 'stippled', 'covers fast, fine stipple'] }),
  sponge: brush('sponge', {
    seed: 12,
    sizeMm: 24,
    start: { touch: 'dab' },
    card: [BROKEN, 'Sponge', 'broken', 'dabbed texture'],
  }),
  'blender-soft': brush('blender-soft', {
    seed: 5,
    sizeMm: 14,
    rubs: RUBS['blender-soft'],
    card: [LOST, 'Soft blender', 'lost', 'softens wet paint'],
  }),
  'blender-bristle': brush('blender-bristle', {
    seed: 13,
    sizeMm: 14,
    rubs: RUBS['blender-bristle'],
    card: [LOST, 'Toothy blender', 'lost, streaked', 'softens and keeps streaks'],
  }),
  stump: brush('stump', {
    seed: 14,
    sizeMm: 8,
    rubs: RUBS.stump,
    draws: true,
    card: [LOST, 'Stump', 'lost', 'a finger drags wet paint'],
  }),
  rag: brush('rag', {
    seed: 15,
    sizeMm: 18,
    rubs: RUBS.rag,
    takesPaint: undefined,
    takesUp: undefined,
    blots: true,
    // water is blotted; everything else it wipes
    stroke: (setting, hand) =>
      setting.layer.basin ? new BlotStroke(setting, WASH_FORMS.rag) : stroke(setting, hand, FORMS.rag, RUBS.rag),
    dials: [DIALS.size, DIALS.strength, DIALS.blend, DIALS.solvent],
    card: ['Takes off, builds up', 'Rag', 'wipes out', 'takes tacky paint with solvent; blots wet washes'],
  }),
};
