import { expect, it } from 'vitest';
import type { Command } from '@/core/commands/commands';
import type { LayersRead } from '@/core/formats/layered/readOpenRaster';
import { paint, studioFor } from '@/measure/bench';
import { layersIn } from './layersIn';

it('layers of a file come to hang in their groups, in their order, hidden where they are hidden', async () => {
  const studio = studioFor(20, 10, { ppi: 60 });
  const rgba = new Uint8Array(4 * 4).fill(200);
  const layer = (name: string, group?: number, visible = true) =>
    ({ name, opacity: 0.5, visible, blend: 'multiply', group, rgba }) as const;
  const read: LayersRead = {
    width: 2,
    height: 2,
    says: [],
    groups: [
      { name: 'Boats', opacity: 0.25, visible: true },
      { name: 'Sails', opacity: 1, visible: false, within: 0 },
    ],
    layers: [layer('Sky'), layer('Hull', 0), layer('Jib', 1, false), layer('Mast', 0), layer('Gulls')],
  };
  const apply = (command: Command) => paint(studio, command as never);
  await layersIn(read, apply, async (command) => {
    apply(command);
    return studio.painting.activeLayer;
  });
  const name = (id: string | undefined) => studio.painting.layers.find((l) => l.id === id)?.name;
  const seen = studio.painting.layers.map(({ name: of, look }) => [of, name(look.group), look.opacity, look.visible]);
  expect(seen.slice(2)).toEqual([
    ['Sky', undefined, 0.5, true],
    ['Hull', 'Boats', 0.5, true],
    ['Jib', 'Sails', 0.5, false],
    ['Sails', 'Boats', 1, false],
    ['Mast', 'Boats', 0.5, true],
    ['Boats', undefined, 0.25, true],
    ['Gulls', undefined, 0.5, true],
  ]);
});
