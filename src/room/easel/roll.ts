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
      card('graphite', 'Pencil', 'line', 'draws on the sketch'),
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
    mark: 'Takes off, builds up',
    cards: [
      card('rag', 'Rag', 'wipes out', 'with solvent it takes tacky paint too'),
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

export const isToolId = (id: string): id is ToolId => (TOOL_IDS as readonly string[]).includes(id);
