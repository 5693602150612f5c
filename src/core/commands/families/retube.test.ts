import { describe, expect, test } from 'vitest';
import { Picture } from '@/core/picture/picture';
import { readSpot } from '@/core/picture/readings';
import { retubeProof, tubesUsed } from '@/core/picture/tubesUsed';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';

const line = (y: number): CommandInput => ({
  do: 'stroke',
  samples: Array.from({ length: 24 }, (_, i) => [i * 10, 6 + 2 * i, y, 0.6]),
});
/** Three films: dry blue grey, dry yellow with some blue in it, wet blue on top of wet white. */
function painted(): Studio {
  const studio = new Studio(paintingSchema.parse({ widthMm: 60, heightMm: 40, ppi: 100, seed: 5 }));
  const commands: CommandInput[] = [
    { do: 'tool', tool: 'flat', sizeMm: 12 },
    { do: 'load', mixture: { PB29: 1, PW6: 3 } },
    line(10),
    { do: 'dry' },
    { do: 'rinse' },
    { do: 'load', mixture: { PY43: 3, PB29: 1, PB28: 1 } },
    line(20),
    { do: 'dry' },
    { do: 'rinse' },
    { do: 'load', mixture: { PW6: 1 } },
    line(30),
    { do: 'rinse' },
    { do: 'load', mixture: { PB29: 1 } },
    line(31),
  ];
  for (const c of commands) studio.apply(commandSchema.parse(c));
  return studio;
}
const pictureOf = (studio: Studio) => {
  const picture = new Picture(studio.painting);
  picture.update({ left: 0, top: 0, right: studio.painting.width, bottom: studio.painting.height });
  return picture;
};
const x = 100;

describe('a tube replaced in a whole painting', () => {
  test.each([1, 0.35, 4])('everywhere, wet and dry, %d parts for one; the book is kept', (factor) => {
    const studio = painted();
    const before = studio.massBalance();
    const thick = studio.painting.massOnCanvas();
    studio.apply(commandSchema.parse({ do: 'retube', from: 'PB29', to: 'PB28', factor }));
    const after = studio.massBalance();
    expect(after.PB29.film + after.PB29.strata).toBe(0);
    const had = before.PB29.film + before.PB29.strata;
    const has = after.PB28.film + after.PB28.strata - before.PB28.film - before.PB28.strata;
    expect(has / had).toBeCloseTo(factor, 3);
    for (const b of Object.values(after)) {
      expect(Math.abs(b.film + b.strata + b.tool + b.slab + b.removed - b.loaded) / b.loaded).toBeLessThan(1e-4);
    }
    // nobody else's paint moved
    for (const id of ['PW6', 'PY43'] as const) {
      expect(after[id].film + after[id].strata).toBeCloseTo(before[id].film + before[id].strata, 4);
    }
    expect(thick.film.length).toBe(studio.painting.massOnCanvas().film.length);
    // a spot of the mixture that had both blues has one, by parts
    const { mixture } = readSpot(pictureOf(studio), x, Math.round(20 / studio.painting.mmPerPx));
    expect(mixture.PB29 ?? 0).toBe(0);
    expect(mixture.PB28 / mixture.PY43).toBeCloseTo((1 + factor) / 3, 1);
  });

  test('undo gives the bytes before, redo those after', () => {
    const studio = painted();
    const before = digest(studio);
    studio.apply(commandSchema.parse({ do: 'retube', from: 'PB29', to: 'PG7' }));
    const after = digest(studio);
    expect(after).not.toBe(before);
    studio.apply({ do: 'undo' });
    expect(digest(studio)).toBe(before);
    studio.apply({ do: 'redo' });
    expect(digest(studio)).toBe(after);
  });

  test('the proof shows what the painting becomes, and leaves it alone', () => {
    const studio = painted();
    const picture = pictureOf(studio);
    const before = digest(studio);
    const proof = retubeProof(picture, 60, { from: 'PB29', to: 'PR188', factor: 0.4 });
    expect(digest(studio)).toBe(before);
    studio.apply(commandSchema.parse({ do: 'retube', from: 'PB29', to: 'PR188', factor: 0.4 }));
    const real = retubeProof(pictureOf(studio), 60);
    expect([proof.width, proof.height]).toEqual([real.width, real.height]);
    let worst = 0;
    proof.rgba.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - real.rgba[i]))));
    expect(worst).toBeLessThanOrEqual(2);
    // and the proof of things as they are is the unlit picture
    const lab = retubeProof(picture, 60);
    const middle = 4 * (Math.floor(lab.height / 2) * lab.width + 30);
    expect(lab.rgba[middle + 3]).toBe(255);
  });

  test('the list of tubes has everything on the canvas, most first, in millilitres', () => {
    const list = tubesUsed(pictureOf(painted()));
    expect(list.map((t) => t.id).sort()).toEqual(['PB28', 'PB29', 'PW6', 'PY43']);
    for (let i = 1; i < list.length; i++) expect(list[i].ml).toBeLessThanOrEqual(list[i - 1].ml);
    const total = list.reduce((sum, t) => sum + t.ml, 0);
    expect(total).toBeGreaterThan(0.02);
    expect(total).toBeLessThan(1);
  });

  test('a tube that is not there changes nothing; the same tube, or none, is refused', () => {
    const studio = painted();
    const rect = studio.apply(commandSchema.parse({ do: 'retube', from: 'PR83', to: 'PV19' })).rect;
    expect(rect.right).toBeLessThan(rect.left);
    expect(() => studio.apply(commandSchema.parse({ do: 'retube', from: 'PB29', to: 'PB29' }))).toThrow(/another tube/);
    expect(commandSchema.safeParse({ do: 'retube', from: 'PB29', to: 'XX' }).success).toBe(false);
  });
});
