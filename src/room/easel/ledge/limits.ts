import type { BenchState } from '@/engine/protocol';
import { rulesInWords, type HouseRules } from '@/core/commands/houseRules';
import { aidOf, type Aid } from '@/core/picture/aids/aids';
import type { View } from '@/core/picture/view';

/** Everything that may change what a stroke does, or what is seen of it. */
export interface Bending {
  readonly bench: BenchState;
  readonly view: View;
  readonly aid: Aid;
  readonly squintMm: number;
  /** Whether a guide is followed; how much the hand is steadied, 0..1. */
  readonly guide: boolean;
  readonly steady: number;
  readonly rules: HouseRules;
  readonly oneLayer: boolean;
  readonly asSeen: boolean;
}

/** Something that limits or bends the hand, while it does. */
export interface Limit {
  readonly id: string;
  readonly says: (now: Bending) => string | undefined;
  /** What ends it; where there is none, only the painter's own rule can be changed. */
  readonly end?: (does: Ends, now: Bending) => void;
}

/** What limits are ended with. */
export interface Ends {
  readonly setLayer: (look: { onlyPaint?: boolean; wetThrough?: boolean }) => void;
  readonly selectNone: () => void;
  readonly freeHand: () => void;
  readonly steady: (v: number) => void;
  readonly mirror: () => void;
  readonly straighten: () => void;
  readonly noAid: () => void;
  readonly openEyes: () => void;
  readonly wholeSample: () => void;
}

const active = ({ bench }: Bending) => bench.layers.find(({ id }) => id === bench.activeLayer);

export const LIMITS: readonly Limit[] = [
  {
    id: 'selection',
    says: ({ bench }) => (bench.selection > 0 ? 'in the selection' : undefined),
    end: ({ selectNone }) => selectNone(),
  },
  {
    id: 'only-paint',
    says: (now) => (active(now)?.onlyPaint ? 'only on paint' : undefined),
    end: ({ setLayer }) => setLayer({ onlyPaint: false }),
  },
  {
    id: 'wet-through',
    says: (now) => (active(now)?.wetThrough ? 'wet through' : undefined),
    end: ({ setLayer }) => setLayer({ wetThrough: false }),
  },
  {
    id: 'guide',
    says: ({ guide }) => (guide ? 'along a guide' : undefined),
    end: ({ freeHand }) => freeHand(),
  },
  {
    id: 'steady',
    says: ({ steady }) => (steady > 0 ? `steadied ${Math.round(steady * 100)} %` : undefined),
    end: ({ steady }) => steady(0),
  },
  {
    id: 'aid',
    says: ({ aid }) => (aid === 'none' ? undefined : `seen: ${aidOf(aid)!.name.toLowerCase()}`),
    end: ({ noAid }) => noAid(),
  },
  {
    id: 'squint',
    says: ({ squintMm }) => (squintMm > 0 ? 'squinting' : undefined),
    end: ({ openEyes }) => openEyes(),
  },
  {
    id: 'mirror',
    says: ({ view }) => (view.mirror ? 'mirrored' : undefined),
    end: ({ mirror }) => mirror(),
  },
  {
    id: 'turned',
    says({ view }) {
      const degrees = Math.round((view.turn * 180) / Math.PI);
      return degrees === 0 ? undefined : `turned ${degrees}°`;
    },
    end: ({ straighten }) => straighten(),
  },
  {
    id: 'sampling',
    says: ({ oneLayer, asSeen }) =>
      oneLayer || asSeen ? `samples ${oneLayer ? 'this layer' : 'the colour seen'}` : undefined,
    end: ({ wholeSample }) => wholeSample(),
  },
  {
    id: 'rules',
    says({ rules }) {
      const said = rulesInWords(rules);
      return said.length > 0 ? `rule: ${said.join(', ')}` : undefined;
    },
  },
];
