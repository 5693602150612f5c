import { describe, expect, it, test } from 'vitest';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { knowPaint, makeOwnPaint } from '@/core/colour/ownPaints';
import { FIRST_OWN, pigmentIndex } from '@/core/colour/pigments';
import { pigmentSpectrum } from '@/core/colour/spectrum';
import { digest } from '@/core/journal/digest';
import type { Studio } from '@/core/journal/studio';
import { replay } from '@/core/journal/replay';
import { field, line, loaded, studioFor } from '@/measure/bench';
import { copyPiece, type Piece } from './pasting';
import { withOwnIndices } from './ownIndices';

const run = (studio: Studio, ...commands: readonly CommandInput[]) => {
  for (const command of commands) studio.apply(commandSchema.parse(command));
  return studio;
};
/** A field of two colours, part of it dry, with a wet stroke over it. */
const painted = (ppi = 60) =>
  run(
    studioFor(40, 30, { ppi }),
    ...field([5, 5, 24, 18], { PY43: 1, PW6: 1 }, 8),
    { do: 'dry' },
    ...loaded('flat', 8, { PB29: 1 }),
    line(6, 10, 22, 14),
  );
/** What lies of a pigment on the layer in hand, coats times mm2, and the middle of it, mm. */
function lies(studio: Studio, id: string): { mass: number; x: number; y: number } {
  const { painting } = studio;
  const layer = painting.layers.find((l) => l.id === painting.activeLayer)!;
  const index = pigmentIndex(id);
  let [mass, x, y] = [0, 0, 0];
  const add = (m: number, tile: number, i: number) => {
    mass += m;
    x += m * ((tile % painting.tilesX) * 64 + (i & 63) + 0.5);
    y += m * (Math.floor(tile / painting.tilesX) * 64 + (i >> 6) + 0.5);
  };
  layer.forEachTile((tile, at) => {
    const k = tile.pigments.indexOf(index);
    if (k >= 0 && tile.volume) for (let i = 0; i < 4096; i++) add(painting.arena.f32[(tile.mass[k] >> 2) + i], at, i);
    for (const s of tile.strata) {
      const p = s.pigments.indexOf(index);
      if (p >= 0) s.mass[p].forEach((v, i) => add(v * s.massStep[p], at, i));
    }
  });
  const mm = painting.mmPerPx;
  return { mass: mass * painting.cellArea, x: (x / mass) * mm, y: (y / mass) * mm };
}
const balances = (studio: Studio, id: string) => {
  const m = studio.massBalance()[id];
  expect(m.film + m.settled + m.strata + m.tool + m.slab + m.removed).toBeCloseTo(m.loaded + (m.added ?? 0), 3);
};

describe('a piece that is copied', () => {
  it('comes onto another layer as it lay, wet and dry, and nothing is lost where it was', () => {
    const studio = painted();
    const before = digest(studio);
    const piece = copyPiece(studio.painting);
    expect(digest(studio)).toBe(before);
    const was = { blue: lies(studio, 'PB29'), ochre: lies(studio, 'PY43') };
    run(studio, { do: 'layer.add', kind: 'paint' }, { do: 'paste', piece });
    const now = { blue: lies(studio, 'PB29'), ochre: lies(studio, 'PY43') };
    for (const tube of ['blue', 'ochre'] as const) {
      expect(now[tube].mass / was[tube].mass).toBeCloseTo(1, 4);
      expect(now[tube].x).toBeCloseTo(was[tube].x, 3);
      expect(now[tube].y).toBeCloseTo(was[tube].y, 3);
    }
    const layer = studio.painting.layers.find(({ id }) => id === studio.painting.activeLayer)!;
    expect(layer.tiles.some((tile) => (tile?.strata.length ?? 0) > 0)).toBe(true);
    expect(layer.tiles.some((tile) => tile?.volume)).toBe(true);
    for (const tube of ['PB29', 'PY43']) balances(studio, tube);
    run(studio, { do: 'undo' });
    expect(lies(studio, 'PB29').mass).toBe(0);
  });

  it.each([
    [60, 0.002],
    [90, 0.03],
    [45, 0.03],
  ])('comes into another painting of %i ppi in its size, where it is put', (ppi, off) => {
    const from = painted();
    const piece = copyPiece(from.painting);
    const was = lies(from, 'PY43');
    const other = studioFor(80, 60, { ppi, seed: 9 });
    run(other, { do: 'paste', piece, at: [50, 40] });
    const now = lies(other, 'PY43');
    expect(Math.abs(now.mass / was.mass - 1)).toBeLessThan(off + 0.01);
    expect(Math.abs(now.x - 50)).toBeLessThan(1.5);
    expect(Math.abs(now.y - 40)).toBeLessThan(1.5);
    balances(other, 'PY43');
    balances(other, 'PB29');
  });

  it('is what is selected, and no more', () => {
    const studio = painted();
    const all = lies(studio, 'PY43').mass;
    run(studio, { do: 'select', how: 'rectangle', from: [0, 0], to: [14.5, 30] });
    const other = run(studioFor(40, 30, { ppi: 60 }), { do: 'paste', piece: copyPiece(studio.painting) });
    const got = lies(other, 'PY43');
    expect(got.mass / all).toBeGreaterThan(0.3);
    expect(got.mass / all).toBeLessThan(0.7);
    expect(got.x).toBeLessThan(14.5);
  });

  it('is replayed from the journal alone to the same bytes', () => {
    const piece = copyPiece(painted().painting);
    const commands = [
      { do: 'layer.add', kind: 'paint' },
      { do: 'paste', piece, at: [22, 14] },
      { do: 'undo' },
      { do: 'redo' },
    ].map((command) => commandSchema.parse(command));
    const studio = studioFor(40, 30, { ppi: 60 });
    for (const command of commands) studio.apply(command);
    const again = replay({
      format: 'stigmos-journal',
      version: 1,
      painting: studio.painting.spec,
      entries: JSON.parse(JSON.stringify(commands)),
    } as never);
    expect(digest(again as never)).toBe(digest(studio));
  });
});

describe('own paints in a piece', () => {
  const { K, S } = pigmentSpectrum('PG18')!;
  const [a, b] = [makeOwnPaint('Slip green', K, S), makeOwnPaint('Slip green, old', K, S)];

  it('come along, whatever their place is here', () => {
    knowPaint(a);
    knowPaint(b);
    const from = studioFor(40, 30, { ppi: 60 });
    from.painting.bringPaint(b);
    run(from, ...field([5, 5, 20, 15], { [b.id]: 1 }, 8));
    const piece = copyPiece(from.painting);
    expect(piece.own).toEqual([{ index: pigmentIndex(b.id), id: b.id }]);
    // as if it had been written where the paint had another place
    const other = studioFor(40, 30, { ppi: 60 });
    other.painting.bringPaint(b);
    run(other, { do: 'paste', piece });
    expect(lies(other, b.id).mass).toBeCloseTo(lies(from, b.id).mass, 3);
  });

  it('keep their planes where their order is another here', () => {
    const plane = (v: number) => new Float32Array(4096).fill(v);
    const [p, q] = [FIRST_OWN, FIRST_OWN + 3];
    const image = { pigments: [2, p, q], planes: [plane(1), plane(2), plane(3), plane(9), plane(8)], strata: [] };
    const there = withOwnIndices(
      image,
      new Map([
        [p, FIRST_OWN + 5],
        [q, FIRST_OWN + 1],
      ]),
    );
    expect(there.pigments).toEqual([2, FIRST_OWN + 1, FIRST_OWN + 5]);
    expect(there.planes.map((one) => one[0])).toEqual([1, 3, 2, 9, 8]);
  });

  it('that are not known are named', () => {
    const piece: Piece = { ...copyPiece(painted().painting), own: [{ index: FIRST_OWN, id: 'own-00000000' }] };
    expect(() => run(studioFor(40, 30), { do: 'paste', piece })).toThrow(/no tube "own-00000000"/);
  });
});

describe('what cannot be pasted is refused in a sentence, and nothing is changed', () => {
  const piece = copyPiece(painted().painting);
  const bytes = Uint8Array.from(atob(piece.tiles), (c) => c.charCodeAt(0));
  const broken = (change: (b: Uint8Array) => Uint8Array) => btoa(String.fromCharCode(...change(bytes.slice())));
  test.each<[string, Partial<Piece>, RegExp]>([
    ['cut off', { tiles: broken((b) => b.slice(0, b.length / 2)) }, /damaged/],
    ['no zlib', { tiles: btoa('abcdefgh') }, /damaged/],
    ['no base64', { tiles: '???' }, /damaged/],
    ['more than it says', { bytes: 64 }, /damaged/],
    ['less than it says', { bytes: piece.bytes + 4096 }, /damaged/],
    ['a tile that is nowhere', { width: 10, height: 10 }, /damaged/],
    ['a picture on paint', { holds: 'pixels' }, /picture layer/],
  ])('%s', (_, change, why) => {
    const studio = studioFor(40, 30, { ppi: 60 });
    const before = digest(studio);
    expect(() => run(studio, { do: 'paste', piece: { ...piece, ...change } })).toThrow(why);
    expect(digest(studio)).toBe(before);
  });

  it('beside the canvas, and of a layer that has nothing', () => {
    const studio = studioFor(40, 30, { ppi: 60 });
    expect(() => run(studio, { do: 'paste', piece, at: [900, 900] })).toThrow(/beside the canvas/);
    expect(() => copyPiece(studio.painting)).toThrow(/nothing on the layer/);
  });
});
