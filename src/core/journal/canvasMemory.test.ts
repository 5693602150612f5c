import { expect, it } from 'vitest';
import { wholeRect } from '@/core/film/tilesIn';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { commandSchema } from '@/core/commands/commands';
import { Studio } from './studio';

const apply = (studio: Studio, ...commands: object[]) => commands.forEach((c) => studio.apply(commandSchema.parse(c)));

/** Looks at everything, as a screen does, and gives the picture back. */
function lookAt({ painting }: Studio): void {
  const picture = new Picture(painting);
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update(wholeRect(painting)));
  picture.linearAt(3, 3);
  pyramid.dispose();
  picture.dispose();
}

/** A sheet with two layers, oil and a wash, none of it at hand to be taken back. */
function painted(): Studio {
  const spec = {
    widthMm: 60,
    heightMm: 40,
    ppi: 110,
    seed: 3,
    surface: { kind: 'paper-cold' as const, scale: 1, depth: 1 },
  };
  const studio = new Studio(spec, 0);
  apply(
    studio,
    { do: 'tool', tool: 'flat', sizeMm: 8 },
    { do: 'load', mixture: { PB29: 1 }, amount: 3 },
    {
      do: 'stroke',
      samples: [
        [0, 5, 8, 0.7],
        [400, 50, 30, 0.7],
      ],
    },
    { do: 'layer.add', kind: 'paint', name: 'Over' },
    { do: 'tool', tool: 'wash-round', sizeMm: 8 },
    { do: 'load', mixture: { PBr7BU: 1 } },
    {
      do: 'stroke',
      samples: [
        [0, 5, 30, 0.7],
        [400, 50, 8, 0.7],
      ],
    },
    { do: 'wait', seconds: 1 },
  );
  lookAt(studio);
  return studio;
}

const TURNED = { do: 'canvas', turn: 90 };
const CROPPED = [
  { do: 'canvas', leftMm: -8, bottomMm: -5 },
  { do: 'canvas', leftMm: 8, bottomMm: 5 },
];

it.each([
  ['turned all round', [TURNED, TURNED, TURNED, TURNED]],
  ['cut and extended', CROPPED],
  ['turned, and that taken back', [TURNED, { do: 'undo' }]],
])('a canvas that is %s takes no more memory than before', (_, commands) => {
  const studio = painted();
  const { arena } = studio.painting;
  const round = () =>
    commands.forEach((command) => {
      apply(studio, command);
      lookAt(studio);
    });
  // the first round dries the wash
  round();
  const before = arena.used;
  for (let i = 0; i < 3; i++) round();
  expect(arena.used).toBe(before);
});

it('a painting that is put away gives everything back', () => {
  const studio = painted();
  const { arena } = studio.painting;
  expect(arena.used).toBeGreaterThan(100_000);
  studio.dispose();
  expect(arena.used).toBe(0);
});
