import type { CommandInput } from '@/core/commands/commands';
import type { Behaviour, Ground, Reading } from '@/measure/behaviour';
import { fromAfar } from '@/measure/fromAfar';
import { first } from '@/measure/thorough';

const dip = (
  tool: 'wash-round' | 'wash-flat' | 'mop' | 'dry-brush',
  sizeMm: number,
  mixture: Record<string, number>,
  water: number,
): CommandInput[] => [
  { do: 'tool', tool, sizeMm, strength: 0.7 },
  { do: 'load', mixture, amount: 1, water },
];
const stroke = (y: number, pressure = 0.7): CommandInput => ({
  do: 'stroke',
  samples: [
    [0, 2, y, pressure],
    [900, 34, y, pressure],
  ],
});

/** Washes on a field of 37 x 14 mm. */
const TRIALS: readonly (readonly [string, readonly CommandInput[]])[] = [
  ['a staining wash', [...dip('wash-round', 7, { PB15_3: 1 }, 0.6), stroke(7), { do: 'dry' }]],
  ['a granulating wash', [...dip('wash-flat', 9, { PB29: 1 }, 0.7), stroke(7), { do: 'dry' }]],
  ['a dry brush', [...dip('dry-brush', 9, { PBr7BU: 1 }, 0.1), stroke(7, 0.5), { do: 'dry' }]],
  [
    'one colour into another',
    [
      ...dip('mop', 10, { PY43: 1 }, 0.8),
      stroke(7),
      ...dip('wash-round', 4, { PB29: 1 }, 0.6),
      stroke(7, 0.5),
      { do: 'dry' },
    ],
  ],
];

const finely = (ground: Ground): Reading[] =>
  first(1, TRIALS).flatMap(([what, strokes]) => fromAfar(ground, what, strokes));

export const WET_FROM_AFAR: Behaviour = {
  id: 'wash-from-afar',
  says: 'A wash is the same at four times the resolution, seen from farther away.',
  on: 'paper',
  measure: finely,
};
