import { expect, it } from 'vitest';
import { Studio } from '@/core/journal/studio';
import { digest } from '@/core/journal/digest';
import { commandSchema } from '@/core/commands/commands';

const SQUARE = [
  [4, 4],
  [14, 4],
  [14, 12],
  [4, 12],
];
const AT = [9, 8];
const SHAPE = { do: 'silhouette', outline: SQUARE, mixture: { PR254: 1 } };

function studio(...commands: object[]): Studio {
  const made = new Studio({
    widthMm: 20,
    heightMm: 16,
    ppi: 100,
    seed: 1,
    surface: { kind: 'panel', scale: 1, depth: 1 },
  });
  apply(made, { do: 'tool', tool: 'flat', grey: 0.25 }, ...commands);
  return made;
}
const apply = (made: Studio, ...commands: object[]) => commands.forEach((c) => made.apply(commandSchema.parse(c)));

/** Code or grey in the layer in hand, mm. */
function cellAt({ painting }: Studio, [x, y]: number[]) {
  const [px, py] = [x, y].map((mm) => Math.floor(mm / painting.mmPerPx));
  const tile = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)];
  const cell = (py & 63) * 64 + (px & 63);
  return {
    alpha: (tile?.pixels?.[cell] ?? 0) >>> 24,
    red: (tile?.pixels?.[cell] ?? 0) & 255,
    grey: tile?.mask?.[cell],
  };
}

const film = ({ painting }: Studio) => [...painting.massOnCanvas().film].reduce((a, b) => a + b, 0);

it.each([
  ['a shape', SHAPE],
  ['an area', { do: 'fill', at: AT, mixture: { PR254: 1 } }],
  ['a tone', { do: 'tone', mixture: { PR254: 1 }, strength: 1 }],
])('%s on a layer of light is light, and on a mask its grey; no film is laid that nobody sees', (_, command) => {
  const light = studio({ do: 'layer.add', kind: 'tone' });
  const before = digest(light);
  apply(light, command);
  expect(cellAt(light, AT).alpha).toBe(255);
  expect(cellAt(light, AT).red).toBeGreaterThan(120);
  expect(film(light)).toBe(0);
  apply(light, { do: 'undo' });
  expect(digest(light)).toBe(before);

  const masked = studio({ do: 'layer.mask', layer: 'L2', how: 'show' });
  apply(masked, command);
  expect(cellAt(masked, AT).grey).toBe(64);
  expect(film(masked)).toBe(0);
});

it('a shape on light ends where its outline ends, and one that is cut takes light away', () => {
  const light = studio({ do: 'layer.add', kind: 'tone' }, SHAPE);
  expect(cellAt(light, [2, 2]).alpha).toBe(0);
  apply(light, {
    do: 'silhouette',
    outline: [
      [4, 4],
      [9, 4],
      [9, 12],
      [4, 12],
    ],
    cut: true,
  });
  expect(cellAt(light, [6, 8]).alpha).toBe(0);
  expect(cellAt(light, [12, 8]).alpha).toBe(255);
  const masked = studio({ do: 'layer.mask', layer: 'L2', how: 'show' }, { ...SHAPE, mixture: undefined, cut: true });
  expect(cellAt(masked, AT).grey).toBe(0);
});

it('what is not selected stays as it is', () => {
  const light = studio(
    { do: 'layer.add', kind: 'tone' },
    { do: 'select', how: 'rectangle', from: [0, 0], to: [8, 16] },
    SHAPE,
  );
  expect(cellAt(light, [6, 8]).alpha).toBe(255);
  expect(cellAt(light, [12, 8]).alpha).toBe(0);
});

it.each([
  [{ do: 'layer.add', kind: 'adjust' }, 'is an adjustment: give it a mask'],
  [{ do: 'layer.add', kind: 'group' }, 'is a group: choose one of its layers'],
])('a layer that takes nothing refuses it in a sentence', (add, sentence) => {
  const made = studio(add);
  const before = digest(made);
  for (const command of [SHAPE, { do: 'fill', at: AT, mixture: { PR254: 1 } }, { do: 'tone', mixture: { PR254: 1 } }]) {
    expect(() => apply(made, command)).toThrow(sentence);
  }
  expect(digest(made)).toBe(before);
});
