import { TOOL_IDS, type ToolId } from '@/core/marks/tools';

/** A tool as it lies in the roll. */
export interface Card {
  readonly id: ToolId;
  readonly name: string;
  /** The edge that it makes. */
  readonly edge: string;
  readonly hint: string;
}

const card = (id: ToolId, name: string, edge: string, hint: string): Card => ({ id, name, edge, hint });

/** The roll: all tools, grouped by what the mark is like. */
export const ROLL: readonly { readonly mark: string; readonly cards: readonly Card[] }[] = [
  {
    mark: 'Found edges',
    cards: [
      card('flat', 'Flat', 'found', 'long hair, holds much paint'),
      card('bright', 'Bright', 'found', 'short and stiff, digs in'),
      card('knife', 'Knife', 'found', 'slabs, lines, knocking down'),
      card('house', 'House brush', 'found, ragged', 'covers fast'),
    ],
  },
  {
    mark: 'Soft ends and lines',
    cards: [
      card('filbert', 'Filbert', 'found, soft ends', 'planes and petals'),
      card('round', 'Round', 'line to mass', 'drawing with paint'),
      card('rigger', 'Rigger', 'line', 'long thin lines of fluid paint'),
    ],
  },
  {
    mark: 'Broken',
    cards: [
      card('fan', 'Fan', 'broken', 'grass, hair, water'),
      card('worn', 'Worn brush', 'broken', 'leaves holes for the ground'),
      card('roller', 'Roller', 'stippled', 'covers fast, fine stipple'),
      card('sponge', 'Sponge', 'broken', 'dabbed texture'),
      card('spatter', 'Spatter', 'drops', 'mist and thrown drops'),
    ],
  },
  {
    mark: 'Lost edges',
    cards: [
      card('blender-soft', 'Soft blender', 'lost', 'softens wet paint'),
      card('blender-bristle', 'Toothy blender', 'lost, streaked', 'softens and keeps streaks'),
      card('stump', 'Stump', 'lost', 'a finger drags wet paint'),
      card('spray', 'Spray', 'lost', 'a soft mist of real paint'),
    ],
  },
  {
    mark: 'Washes',
    cards: [
      card('wash-round', 'Wash round', 'found or lost', 'a point and a belly of water'),
      card('mop', 'Mop', 'wash', 'holds most water'),
      card('wash-flat', 'Flat wash', 'found, wash', 'bands, edges, skies'),
      card('hake', 'Hake', 'wash', 'wide and soft, wets the sheet'),
      card('wash-rigger', 'Wash rigger', 'line', 'twigs and rigging'),
      card('gouache', 'Body colour', 'found', 'opaque, over dry washes'),
    ],
  },
  {
    mark: 'Broken, with water',
    cards: [
      card('dry-brush', 'Dry brush', 'broken', 'meets the peaks of the paper'),
      card('sponge-natural', 'Natural sponge', 'broken', 'leaves and stones'),
      card('splatter', 'Splatter', 'drops', 'flung from a full brush'),
      card('dropper', 'Dropper', 'drop', 'charges a wash, makes back-runs; held still it goes on'),
      card('salt', 'Salt', 'stars', 'strewn on a wash that shines'),
    ],
  },
  {
    mark: 'Lifts, keeps white',
    cards: [
      card('thirsty', 'Thirsty brush', 'lost', 'damp: lifts, softens edges'),
      card('masking', 'Masking fluid', 'found, white', 'keeps every wash off'),
      card('crepe', 'Crepe rubber', 'bares', 'rubs masking fluid off'),
      card('wax', 'Wax', 'broken, white', 'a candle; with a colour, a crayon'),
    ],
  },
  {
    mark: 'Dust on the tooth',
    cards: [
      card('graphite', 'Pencil', 'line', '6H to 8B; leant over it shades'),
      card('charcoal', 'Charcoal', 'broken', 'willow: soft, lies loose'),
      card('charcoal-pressed', 'Pressed charcoal', 'broken, dark', 'deep blacks'),
      card('chalk', 'Chalk', 'broken', 'white for lights on toned paper'),
      card('pastel-soft', 'Soft pastel', 'broken to closed', 'side, edge or point'),
      card('pastel-hard', 'Hard pastel', 'broken, line', 'drawing, and first layers'),
    ],
  },
  {
    mark: 'Rubs and lifts dust',
    cards: [
      card('finger', 'Finger', 'lost', 'rubs dust into the tooth'),
      card('eraser-kneaded', 'Kneaded eraser', 'lost', 'pressed on, it lifts lights'),
    ],
  },
  {
    mark: 'Ink',
    cards: [
      card('ink-fast', 'Waterproof pen', 'line', 'stays under every wash'),
      card('ink-soluble', 'Soluble pen', 'line, runs', 'a wash takes part of it up'),
      card('pen-bold', 'Bold pen', 'line to mass', 'swells with pressure'),
      card('marker', 'Felt marker', 'found', 'one width, see-through'),
    ],
  },
  {
    mark: 'Takes off, builds up',
    cards: [
      card('rag', 'Rag', 'wipes out', 'takes tacky paint with solvent; blots wet washes'),
      card('scraper', 'Scraper', 'scrapes back', 'down to the valleys of the grain'),
      card('eraser', 'Rub-out', 'opens the ground', 'wet or dry paint'),
      card('gel', 'More body', 'none', 'gives wet paint gel before knifing'),
    ],
  },
];

const cards = new Map(ROLL.flatMap((group) => group.cards).map((c) => [c.id, c]));
export const cardOf = (id: ToolId): Card => cards.get(id)!;

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

export const isToolId = (id: string): id is ToolId => (TOOL_IDS as readonly string[]).includes(id);
