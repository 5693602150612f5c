import { strFromU8, strToU8, unzipSync, zipSync, type Unzipped } from 'fflate';
import { describe, expect, it } from 'vitest';
import { makeOwnPaint } from '@/core/colour/ownPaints';
import { pigmentSpectrum } from '@/core/colour/spectrum';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import { commandSchema, type Command } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/errors';
import { loaded, line, paint, studioFor } from '@/measure/bench';
import { fittingDigests } from '@/measure/damage/fittingDigests';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { openStigmosFile, FileDamaged, readStigmosFile } from './readStigmosFile';
import { encodeStigmosFile, type StigmosFile } from './stigmosFile';
import { studioOf } from './studioOf';

const small = () => {
  const studio = studioFor(24, 18, { ppi: 90 });
  paint(studio, ...loaded('flat', 8, { PB29: 1 }), line(4, 8, 20, 10), { do: 'dry' }, line(6, 4, 18, 14));
  return { studio, bytes: encodeStigmosFile(studio, studio.history, 'Mooring posts', []) };
};
const problem = (bytes: Uint8Array): Promise<unknown> =>
  readStigmosFile(bytes).then(
    () => undefined,
    (error: unknown) => error,
  );

/** A file with parts changed and its digests made to fit: what a checksum alone does not find. */
function forged(bytes: Uint8Array, change: (parts: Unzipped) => void): Uint8Array {
  const parts = unzipSync(bytes);
  change(parts);
  parts['manifest.json'] = fittingDigests(parts);
  return zipSync(parts);
}
const json = (parts: Unzipped, name: string, change: (data: never) => void) => {
  const data = JSON.parse(strFromU8(parts[name]));
  change(data as never);
  parts[name] = strToU8(JSON.stringify(data));
};

describe('a painting sent out as a file and read back', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('is the same bytes, whatever was done to it (seed %i)', async (seed) => {
    const random = randomFrom(seed * 31);
    const kinds = ['linen-fine', 'paper-cold', 'paper-laid'] as const;
    const studio = studioFor(22, 17, { ppi: 80 + random.below(30), surface: { kind: random.pick(kinds) } });
    const done: Command[] = [];
    while (done.length < 50) {
      const act = commandSchema.parse(
        done.length === 25 ? { do: 'canvas', rightMm: 30, bottomMm: 9 } : randomAct(random, 24, 20),
      );
      try {
        studio.apply(act);
        done.push(act);
      } catch (error) {
        if (!(error instanceof PainterError)) throw error;
      }
    }
    const file = await readStigmosFile(encodeStigmosFile(studio, done, 'Anything', []));
    expect(file.journal.entries).toEqual(done);
    const again = studioOf(file);
    expect(digest(again)).toBe(digest(studio));
    // and goes on to the same bytes
    for (const one of [again, studio]) paint(one, { do: 'wait', seconds: 30 }, { do: 'dry' });
    expect(digest(again)).toBe(digest(studio));
  });

  it('brings its own paints', async () => {
    const { K, S } = pigmentSpectrum('PG18')!;
    const weed = makeOwnPaint(
      'Weed',
      K.map((k) => k * 1.1),
      S,
    );
    const studio = studioFor(20, 15, { ppi: 80, paints: [weed] });
    paint(studio, ...loaded('flat', 6, { [weed.id]: 1 }), line(3, 6, 16, 8));
    const file = await readStigmosFile(encodeStigmosFile(studio, studio.history, 'Weed', []));
    expect(digest(studioOf(file))).toBe(digest(studio));
  });
});

describe('a damaged file', () => {
  it('whose checksum does not hold is found out', async () => {
    const { bytes } = small();
    const random = randomFrom(9);
    let refused = 0;
    for (let i = 0; i < 60; i++) {
      const broken = bytes.slice();
      broken[random.below(broken.length)] ^= 1 + random.below(255);
      const file = await readStigmosFile(broken).catch((error: unknown) => error);
      if (file instanceof PainterError) refused++;
      // a byte that nothing depends on, such as a date
      else expect((file as StigmosFile).digest).toBe(digest(studioOf(file as StigmosFile)));
    }
    expect(refused).toBeGreaterThan(45);
  });

  it.each<[string, (parts: Unzipped) => void]>([
    [
      'not a number in its paint',
      (parts) => {
        const name = Object.keys(parts).find((n) => n.startsWith('tiles/L2'))!;
        const image = decodeTile(parts[name]);
        image.planes[0][100] = NaN;
        parts[name] = encodeTile(image);
      },
    ],
    [
      'more paint than there can be',
      (parts) => {
        const name = Object.keys(parts).find((n) => n.startsWith('tiles/L2'))!;
        const image = decodeTile(parts[name]);
        image.planes[image.pigments.length][7] = 1e30;
        parts[name] = encodeTile(image);
      },
    ],
    ['a layer twice', (parts) => json(parts, 'state.json', (s: { layers: object[] }) => s.layers.push(s.layers[1]))],
    [
      'a reservoir of another size',
      (parts) =>
        json(parts, 'state.json', (s: { reservoirs: { flat: { across: number } } }) => (s.reservoirs.flat.across = 90)),
    ],
    [
      'a canvas of 20 x 20 m',
      (parts) =>
        json(parts, 'state.json', (s: { canvas: object }) => (s.canvas = { widthMm: 20_000, heightMm: 20_000 })),
    ],
    [
      'a size that no brush has',
      (parts) => json(parts, 'state.json', (s: { tools: { sizeMm: number }[] }) => (s.tools[0].sizeMm = 1e9)),
    ],
    [
      'a journal that was cut',
      (parts) => json(parts, 'journal.json', (j: { entries: object[] }) => j.entries.splice(3)),
    ],
    [
      'a tile where there is no room',
      (parts) => json(parts, 'manifest.json', (m: { tiles: { index: number }[] }) => (m.tiles[0].index = 999)),
    ],
    ['a tile twice', (parts) => json(parts, 'manifest.json', (m: { tiles: object[] }) => m.tiles.push(m.tiles[0]))],
    [
      'paint of a paint that there is not',
      (parts) => json(parts, 'state.json', (s: { loaded: Record<string, number> }) => (s.loaded.XX = 3)),
    ],
  ])('is found out although its checksums fit: %s', async (_, change) => {
    const { bytes } = small();
    expect(await problem(forged(bytes, () => {}))).toBeUndefined();
    const why = await problem(forged(bytes, change));
    expect(why).toBeInstanceOf(FileDamaged);
    // what can be saved is there
    const { file, strokes } = why as FileDamaged;
    expect(strokes).toBe(file.journal.entries.filter((e) => e.do === 'stroke').length);
    expect(file.title).toBe('Mooring posts');
  });

  it('with a journal of another painting is refused', async () => {
    const parts = unzipSync(small().bytes);
    json(parts, 'journal.json', (j: { entries: object[] }) => j.entries.pop());
    expect(await problem(zipSync(parts))).toMatchObject({
      message: 'This painting cannot be opened: its journal is damaged.',
    });
  });
});

describe('an archive that is a trap', () => {
  it('unpacks to far more than it is: refused before it is unpacked', async () => {
    const { bytes } = small();
    const parts = unzipSync(bytes);
    const bomb = zipSync({ ...parts, 'tiles/bomb.bin': [new Uint8Array(140 * 2 ** 20), { level: 9 }] });
    expect(bomb.length).toBeLessThan(400_000);
    expect(await problem(bomb)).toMatchObject({ message: 'This file unpacks to more than a painting can be.' });
  });

  it('says that an entry is smaller than it is: stopped on the way', async () => {
    const { bytes } = small();
    const bomb = zipSync({ ...unzipSync(bytes), 'state.json': new Uint8Array(30 * 2 ** 20) });
    const view = new DataView(bomb.buffer, bomb.byteOffset, bomb.length);
    for (let at = 0; at + 4 < bomb.length; at++) {
      const mark = view.getUint32(at, true);
      if (mark === 0x04034b50 && view.getUint32(at + 22, true) === 30 * 2 ** 20) view.setUint32(at + 22, 100, true);
      if (mark === 0x02014b50 && view.getUint32(at + 24, true) === 30 * 2 ** 20) view.setUint32(at + 24, 100, true);
    }
    expect(await problem(bomb)).toBeInstanceOf(PainterError);
  });

  it('has many entries in one place: refused before anything is unpacked', async () => {
    // one packed body, and a directory that lists it four thousand times
    const body = zipSync({ a: [new Uint8Array(10 * 2 ** 20), { level: 9 }] });
    const view = new DataView(body.buffer, body.byteOffset, body.length);
    const end = body.length - 22;
    const start = view.getUint32(end + 16, true);
    const entry = body.slice(start, end);
    const many = 4000;
    const out = new Uint8Array(start + many * entry.length + 22);
    out.set(body.subarray(0, start));
    for (let i = 0; i < many; i++) {
      entry[46] = 33 + (i % 90);
      out.set(entry, start + i * entry.length);
    }
    out.set(body.subarray(end), start + many * entry.length);
    const last = new DataView(out.buffer, start + many * entry.length);
    last.setUint16(8, many, true);
    last.setUint16(10, many, true);
    last.setUint32(12, many * entry.length, true);
    const before = process.memoryUsage().rss;
    expect(await problem(out)).toBeInstanceOf(PainterError);
    expect(process.memoryUsage().rss - before).toBeLessThan(500e6);
  });

  it('can be of strokes alone: much smaller, and the same bytes once it is painted again', async () => {
    const { studio } = small();
    const bytes = encodeStigmosFile(studio, studio.history, 'Mooring posts', [], { strokesAlone: true });
    expect(bytes.length).toBeLessThan(small().bytes.length / 4);
    const file = await openStigmosFile(bytes);
    expect('strokesAlone' in file).toBe(true);
    expect(digest(studioOf(file))).toBe(digest(studio));
    expect(file.digest).toBe(digest(studio));
    expect(String(await problem(bytes))).toContain('strokes alone');
    expect(() => encodeStigmosFile(studio, studio.history, 'Gaps', [], { strokesAlone: true, missing: 2 })).toThrow(
      'A part of its journal is missing',
    );
  });

  it('says of which version a file is that is too new, and opens what it knows', async () => {
    const { bytes } = small();
    const parts = unzipSync(bytes);
    json(parts, 'manifest.json', (manifest: { version: number; extra?: object }) => {
      manifest.version = 7;
      manifest.extra = { anything: 'else' };
    });
    expect(String(await problem(zipSync(parts)))).toContain('of version 7; this program reads up to 2');
  });
});

describe('a file that is damaged', () => {
  it('without a photo that is damaged is the rest, which says so', async () => {
    const { studio } = small();
    const photo = { name: 'pier.jpg', type: 'image/jpeg', bytes: Uint8Array.from({ length: 900 }, (_, i) => i * 7) };
    const bytes = encodeStigmosFile(studio, studio.history, 'Posts', [photo, { ...photo, name: 'mud.jpg' }]);
    const parts = unzipSync(bytes);
    delete parts['photos/1'];
    const why = (await problem(zipSync(parts))) as FileDamaged;
    expect(why.message).toBe('This file is damaged: the photo “pier.jpg” is lost. It can be opened without.');
    expect(why.strokes).toBeUndefined();
    expect(why.file.photos.map(({ name, bytes: own }) => [name, own])).toEqual([['mud.jpg', photo.bytes]]);
    expect(digest(studioOf(why.file as StigmosFile))).toBe(digest(studio));
  });

  it('cut off anywhere is refused in a sentence, or has its journal still and says what is lost', async () => {
    const { studio } = small();
    const photo = { name: 'pier.jpg', type: 'image/jpeg', bytes: Uint8Array.from({ length: 900 }, (_, i) => i * 7) };
    const bytes = encodeStigmosFile(studio, studio.history, 'Posts', [photo]);
    const random = randomFrom(3);
    let saved = 0;
    for (let i = 0; i < 40; i++) {
      const cut = i === 0 ? bytes.length - 9 : 1 + random.below(bytes.length - 1);
      const why = await problem(bytes.subarray(0, cut));
      expect(why, `at ${cut}`).toBeInstanceOf(PainterError);
      if (!(why instanceof FileDamaged)) continue;
      saved++;
      expect(why.message).toMatch(
        /^This file is damaged: its paint( and the photo “pier.jpg” are| is) lost\. It can be painted again from its 2 strokes\.$/,
      );
      expect(why.file.journal.entries).toEqual(studio.history);
      expect(why.file.photos.length).toBe(/photo/.test(why.message) ? 0 : 1);
    }
    expect(saved).toBeGreaterThan(20);
  });

  it('cut off is not unpacked to more than a part of a file may be', async () => {
    const bomb = zipSync({ 'manifest.json': new Uint8Array(200e6), 'journal.json': strToU8('{}') }, { level: 9 });
    expect(String(await problem(bomb.subarray(0, bomb.length - 40)))).toMatch(/manifest is missing/);
  });
});
