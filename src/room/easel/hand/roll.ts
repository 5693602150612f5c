import type { Card } from '@/core/tools/definition';
import { TOOL_IDS, toolOf, type ToolId } from '@/core/tools/tools';

/** What marks are like, as they lie in the roll; others come behind. */
const MARKS = [
  'Found edges',
  'Soft ends and lines',
  'Broken',
  'Lost edges',
  'Washes',
  'Broken, with water',
  'Lifts, keeps white',
  'Dust on the tooth',
  'Rubs and lifts dust',
  'Ink',
  'Takes off, builds up',
];
const placeOf = (mark: string): number => (MARKS.includes(mark) ? MARKS.indexOf(mark) : MARKS.length);

export const cardOf = (id: ToolId): Card => toolOf(id).card;

/** The roll: all tools, grouped by what the mark is like. */
export const ROLL: readonly { readonly mark: string; readonly cards: readonly (Card & { readonly id: ToolId })[] }[] = [
  ...new Set(TOOL_IDS.map((id) => cardOf(id).mark)),
]
  .sort((a, b) => placeOf(a) - placeOf(b))
  .map((mark) => ({
    mark,
    cards: TOOL_IDS.filter((id) => cardOf(id).mark === mark).map((id) => ({ id, ...cardOf(id) })),
  }));

/** What the jar is set out for, in the order of work, with its six tools at first. */
export const STAGES = ['Ground', 'Draw', 'Lay in', 'Work up', 'Light', 'Finish'] as const;
export type Stage = (typeof STAGES)[number];

export const SET_OUT: Readonly<Record<Stage, readonly ToolId[]>> = {
  Ground: ['house', 'roller', 'worn', 'sponge', 'flat', 'rag'],
  Draw: ['graphite', 'rigger', 'round', 'flat', 'rag', 'eraser'],
  'Lay in': ['house', 'flat', 'filbert', 'worn', 'knife', 'rag'],
  'Work up': ['flat', 'filbert', 'round', 'blender-soft', 'graphite', 'eraser'],
  Light: ['filbert', 'bright', 'knife', 'blender-bristle', 'stump', 'spray'],
  Finish: ['round', 'rigger', 'fan', 'knife', 'spatter', 'scraper'],
};

/** The same for watercolour. */
export const SET_OUT_WATER: Readonly<Record<Stage, readonly ToolId[]>> = {
  Ground: ['hake', 'mop', 'wash-flat', 'sponge-natural', 'masking', 'thirsty'],
  Draw: ['graphite', 'ink-fast', 'ink-soluble', 'masking', 'wax', 'eraser'],
  'Lay in': ['mop', 'wash-flat', 'hake', 'wash-round', 'dropper', 'thirsty'],
  'Work up': ['wash-round', 'mop', 'dry-brush', 'wash-rigger', 'dropper', 'thirsty'],
  Light: ['thirsty', 'rag', 'gouache', 'crepe', 'wash-round', 'splatter'],
  Finish: ['wash-round', 'wash-rigger', 'dry-brush', 'gouache', 'splatter', 'ink-fast'],
};

/** The same for sticks on paper with a tooth. */
export const SET_OUT_DRY: Readonly<Record<Stage, readonly ToolId[]>> = {
  Ground: ['pastel-hard', 'charcoal', 'chalk', 'rag', 'finger', 'eraser'],
  Draw: ['charcoal', 'graphite', 'pastel-hard', 'finger', 'eraser-kneaded', 'eraser'],
  'Lay in': ['pastel-hard', 'pastel-soft', 'charcoal', 'finger', 'rag', 'eraser-kneaded'],
  'Work up': ['pastel-soft', 'pastel-hard', 'finger', 'stump', 'charcoal-pressed', 'eraser-kneaded'],
  Light: ['pastel-soft', 'chalk', 'finger', 'stump', 'eraser-kneaded', 'pastel-hard'],
  Finish: ['pastel-soft', 'pastel-hard', 'charcoal-pressed', 'graphite', 'eraser', 'chalk'],
};
