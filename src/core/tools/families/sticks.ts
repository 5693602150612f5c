import type { HeldTool } from '@/core/marks/heldTool';
import { rubbing, SmudgeStroke } from '@/core/marks/dry/smudgeStroke';
import { graded, STICKS, type StickForm, type StickName } from '@/core/marks/dry/stickForms';
import { StickStroke } from '@/core/marks/dry/stickStroke';
import { Together } from '@/core/marks/together';
import { defineTool, type Common, type InHand, type Own } from '../definition';
import { DIALS, gradeWords, WAYS } from '../dials';
import { PARTS, round, square } from '../drawing';

/** How long the side of a stick is along its way, share of its width; how much of it an edge and a point touch. */
const SIDE = 0.22;
const TOUCHES = { edge: 0.1, tip: 0.3 };

/** What a stick is made of. */
const madeOf = (form: StickForm) => (hand: InHand) => hand.lastMixture ?? form.mixture;

/** Held so that it lies flat, a stick is as wide as it is long. */
const outline = ({ sizeMm, hold }: HeldTool) =>
  hold === 'flat' ? square(sizeMm, SIDE * sizeMm) : round(TOUCHES[hold] * sizeMm);

function stick(name: StickName, own: Own) {
  const form = STICKS[name];
  const made = madeOf(form);
  const common: Common = {
    holds: 'made',
    takesPaint: true,
    draws: true,
    sketches: true,
    unspoken: true,
    stick: form,
    fills: { of: 'dust', form },
    light: ({ blend }) => ({ soft: 0.4, grain: 0.75, smear: blend > 0.5 }),
    carries: made,
    stroke(setting, hand) {
      const { blend } = setting.settings;
      const drawn = new StickStroke(setting, form, made(hand));
      return blend > 0 ? new Together([new SmudgeStroke(setting, rubbing(blend)), drawn]) : drawn;
    },
    dials: [DIALS.size, DIALS.strength, DIALS.blend],
    ways: [WAYS.stick],
    outline,
    picture: () => ({ parts: PARTS.stick, paint: () => ({ d: PARTS.stick[0].d, lined: true }) }),
  };
  return defineTool(common, own);
}

const DUST = 'Dust on the tooth';

export const STICK_TOOLS = {
  graphite: stick('graphite', {
    seed: 21,
    sizeMm: 0.7,
    start: { into: 'sketch' },
    takesPaint: undefined,
    unspoken: undefined,
    carries: undefined,
    stroke(setting, hand) {
      const { blend, grade } = setting.settings;
      const lead = new StickStroke(setting, graded(STICKS.graphite, grade), madeOf(STICKS.graphite)(hand));
      return blend > 0 ? new Together([new SmudgeStroke(setting, rubbing(blend)), lead]) : lead;
    },
    dials: [DIALS.size, DIALS.strength, DIALS.blend, DIALS.grade],
    ways: [WAYS.into],
    bare: ({ grade }) => `graphite, ${gradeWords(grade)}`,
    outline: ({ sizeMm }) => round(sizeMm),
    picture: () => ({ parts: PARTS.pencil }),
    card: [DUST, 'Pencil', 'line', '6H to 8B; leant over it shades'],
  }),
  charcoal: stick('charcoal', { seed: 22, sizeMm: 12, card: [DUST, 'Charcoal', 'broken', 'willow: soft, lies loose'] }),
  'charcoal-pressed': stick('charcoal-pressed', {
    seed: 23,
    sizeMm: 10,
    card: [DUST, 'Pressed charcoal', 'broken, dark', 'deep blacks'],
  }),
  chalk: stick('chalk', { seed: 24, sizeMm: 12, card: [DUST, 'Chalk', 'broken', 'white for lights on toned paper'] }),
  'pastel-soft': stick('pastel-soft', {
    seed: 25,
    sizeMm: 16,
    card: [DUST, 'Soft pastel', 'broken to closed', 'side, edge or point'],
  }),
  'pastel-hard': stick('pastel-hard', {
    seed: 26,
    sizeMm: 10,
    card: [DUST, 'Hard pastel', 'broken, line', 'drawing, and first layers'],
  }),
};
