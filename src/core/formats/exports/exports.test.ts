import { decode } from 'fast-png';
import { decode as decodeJpeg } from 'jpeg-js';
import { readFileSync } from 'node:fs';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { PainterError } from '@/core/errors';
import { wholeRect } from '@/core/film/tilesIn';
import { readJournal, replay } from '@/core/journal/replay';
import { digest } from '@/core/journal/digest';
import { Picture } from '@/core/picture/picture';
import { field, line, loaded, paint, studioFor } from '@/measure/bench';
import { check, fileFor, lacks } from '@/measure/checkers';
import { decodePots } from '@/core/formats/potsFile';
import { GivenUp } from '@/core/formats/step';
import { decodeTubeSet } from '@/core/formats/tubeSetFile';
import { defineExport, type ExportDefinition, type SentOut } from './definition';
import { EXPORT_IDS, EXPORTS, exportsFor, type ExportId } from './exports';
import { PURPOSES, type Purpose } from './definition';

/** A painting as an engine lends it: ochre, blue over a part of it, a ridge of white. */
function lent(): SentOut & { readonly picture: Picture } {
  const studio = studioFor(41, 30, { ppi: 127 });
  paint(studio, ...field([0, 0, 41, 16], { PY43: 1, PW6: 2 }, 9));
  paint(studio, { do: 'dry' }, { do: 'layer.add', kind: 'paint', name: 'Sky & <sea>' });
  paint(studio, ...loaded('flat', 8, { PB29: 1, PW6: 3 }), line(4, 22, 37, 22));
  paint(studio, ...loaded('knife', 9, { PW6: 1 }, { amount: 3 }), line(8, 10, 30, 12));
  const picture = new Picture(studio.painting);
  picture.update(wholeRect(studio.painting));
  return {
    picture,
    plainly: (render) => render(picture),
    ppi: studio.painting.spec.ppi,
    title: 'Ebb – “low” tide ☂',
    studio,
    paintingFile: async () => Uint8Array.of(80, 75),
    step: () => {},
    webp: async () => Uint8Array.from('RIFF    WEBP', (c) => c.charCodeAt(0)),
  };
}

/** A painting with nothing on it. */
function empty(): Pick<SentOut, 'studio' | 'plainly'> {
  const studio = studioFor(10, 8, { ppi: 60 });
  const picture = new Picture(studio.painting);
  picture.update(wholeRect(studio.painting));
  return { studio, plainly: (render) => render(picture) };
}

const make = (as: ExportId, settings?: Record<string, unknown>, from: SentOut = lent()) =>
  (EXPORTS[as] as ExportDefinition).make(from, settings);

describe('ways to send a painting out', () => {
  it('one is brought in by its definition alone', async () => {
    const measure = defineExport({
      label: 'Its size in cells',
      purposes: ['keep'],
      extension: 'txt',
      type: 'text/plain',
      settings: {
        unit: { kind: 'choice', label: 'Unit', choices: { cells: 'Cells', tiles: 'Tiles' }, first: 'cells' },
      },
      make: ({ plainly }, { unit }) => ({
        bytes: new TextEncoder().encode(plainly(({ painting }) => `${painting.width} ${unit}`)),
      }),
    });
    expect(new TextDecoder().decode((await measure.make(lent())).bytes)).toMatch(/^\d+ cells$/);
    await expect(measure.make(lent(), { unit: 'miles' })).rejects.toThrow('"Unit" (unit) can be cells, tiles.');
    await expect(measure.make(lent(), { units: 'cells' })).rejects.toThrow('There is no setting "units"');
  });

  it('each says what it is and makes a file of it, and each purpose has some', async () => {
    const from = lent();
    for (const id of EXPORT_IDS) {
      const { label, extension, type, make: makeIt } = EXPORTS[id] as ExportDefinition;
      expect(label.length).toBeGreaterThan(5);
      expect(`${extension} ${type}`).toMatch(/^[a-z0-9.]+ [a-z]+\/[a-z0-9-]+$/);
      expect((await makeIt(from)).bytes.length, id).toBeGreaterThan(1);
    }
    for (const purpose of Object.keys(PURPOSES) as Purpose[]) expect(exportsFor(purpose).length).toBeGreaterThan(0);
  }, 240_000);

  it('what takes long says how far it is, goes forward only, and ends where nobody waits for it any more', async () => {
    for (const as of ['png', 'jpeg', 'tiff', 'pdf', 'ora'] as const) {
      const told: number[] = [];
      const settings = as === 'png' ? { depth: '16' } : {};
      await make(as, settings, { ...lent(), step: (share) => told.push(share) });
      expect(told.length, as).toBeGreaterThan(1);
      expect(
        [...told].sort((a, b) => a - b),
        as,
      ).toEqual(told);
      expect(told.at(-1)!, as).toBeLessThanOrEqual(1);
      let steps = 0;
      const step = () => {
        if (++steps > 1) throw new GivenUp();
      };
      await expect(make(as, settings, { ...lent(), step })).rejects.toThrow(GivenUp);
      expect(steps, as).toBe(2);
    }
  });

  it.each([
    ['jpeg', { quality: 0 }],
    ['jpeg', { quality: Number.NaN }],
    ['png', { depth: 12 }],
    ['stl', { points: 1e9 }],
    ['web', { longest: '2000' }],
    ['web', []],
  ] as const)('%s with %j is refused in a sentence', async (as, settings) => {
    await expect(make(as, settings as never)).rejects.toThrow(PainterError);
  });
});

describe('to share', () => {
  it('the mixtures of a painting are pots, its tubes a set, and both are read back', async () => {
    const pots = decodePots(strFromU8((await make('pots')).bytes));
    // ochre over half of it, blue over a band
    expect(pots.pots.length).toBeGreaterThanOrEqual(2);
    expect(Object.keys(pots.pots[0].mixture).sort()).toEqual(['PW6', 'PY43']);
    expect(pots.pots[0].mixture.PW6 / pots.pots[0].mixture.PY43).toBeCloseTo(2, 6);
    const { tubes } = decodeTubeSet(strFromU8((await make('tubes')).bytes));
    expect([...tubes].sort()).toEqual(['PB29', 'PW6', 'PY43']);
    const bare = { ...lent(), ...empty() };
    await expect(make('tubes', {}, bare)).rejects.toThrow('There is no paint on it yet.');
    await expect(make('pots', {}, bare)).rejects.toThrow(/^There is no mixture/);
  });
});

describe('pictures', () => {
  it('one layer alone has its own colours, whatever lies above and below, also hidden and in a group', async () => {
    const from = lent();
    const { studio } = from;
    const { painting } = studio;
    const band = painting.activeLayer;
    const before = decode((await make('png', { shown: 'layer' }, from)).bytes);
    paint(studio, { do: 'layer.add', kind: 'group', name: 'All' });
    const group = painting.activeLayer;
    paint(studio, { do: 'layer.move', layer: band, to: 9, group });
    paint(studio, { do: 'layer.add', kind: 'paint', name: 'Over', group });
    paint(studio, ...loaded('flat', 9, { PR254: 1 }), line(2, 15, 39, 15));
    paint(studio, { do: 'layer.set', layer: group, visible: false }, { do: 'layer.choose', layer: band });
    from.picture.update(wholeRect(painting));
    const after = decode((await make('png', { shown: 'layer' }, from)).bytes);
    expect([before.channels, after.channels]).toEqual([4, 4]);
    expect(after.data).toEqual(before.data);
    const at = (xMm: number, yMm: number) => {
      const i = 4 * (Math.round(yMm * 5) * after.width + Math.round(xMm * 5));
      return [...after.data.subarray(i, i + 4)];
    };
    expect(at(3, 3)[3]).toBe(0);
    expect(at(20, 22)[3]).toBe(255);
    expect(at(20, 22)[2]).toBeGreaterThan(at(20, 22)[0] + 40);
    const fine = decode((await make('png', { shown: 'layer', depth: '16', space: 'p3' }, from)).bytes);
    expect([fine.depth, fine.channels]).toEqual([16, 4]);
  });

  it('16 bits come from the film: where 8 bits are all they agree with, they lie between', async () => {
    const from = lent();
    const { picture } = from;
    for (const shown of ['unlit', 'lit'] as const) {
      const fine = decode((await make('png', { shown, depth: '16' }, from)).bytes);
      const coarse = decode((await make('png', { shown }, from)).bytes);
      expect([fine.depth, fine.width, fine.height]).toEqual([16, picture.painting.width, picture.painting.height]);
      let off = 0;
      const steps = new Set<number>();
      for (let i = 0; i < coarse.data.length; i++) {
        // light is worked out from codes of 8 bits in the one, and from the film in the other
        off = Math.max(off, Math.abs(fine.data[i] / 257 - coarse.data[i]));
        steps.add(fine.data[i] % 257);
      }
      expect(off, shown).toBeLessThan(shown === 'unlit' ? 0.75 : 2.5);
      expect(steps.size, shown).toBeGreaterThan(200);
    }
  });

  it('a smooth wash has more than twelve bits of steps in sixteen', async () => {
    const studio = studioFor(60, 20, { ppi: 127, surface: { kind: 'smooth' } });
    paint(studio, { do: 'tone', mixture: { PB29: 1 }, strength: 0.3 });
    for (let i = 0; i < 28; i++)
      paint(
        studio,
        ...loaded('spray', 18, { PW6: 1 }, { amount: 1 }),
        line(2 + 2 * i, 2, 2 + 2 * i, 18, 0.05 + i / 40),
      );
    const picture = new Picture(studio.painting);
    picture.update(wholeRect(studio.painting));
    const { data } = decode(
      (await make('png', { shown: 'unlit', depth: '16' }, { ...lent(), plainly: (f) => f(picture) })).bytes,
    );
    const steps = new Set<number>();
    let [low, high] = [65535, 0];
    for (let i = 1; i < data.length; i += 3) {
      steps.add(data[i]);
      [low, high] = [Math.min(low, data[i]), Math.max(high, data[i])];
    }
    // of the steps that 12 bits have between the ends, as many at least are there
    expect(high - low).toBeGreaterThan(6000);
    expect(steps.size).toBeGreaterThan((high - low) / 16);
  });

  it('Display P3 is the same light in other numbers', async () => {
    const from = lent();
    const srgb = decode((await make('png', { shown: 'unlit', depth: '16' }, from)).bytes);
    const p3 = decode((await make('png', { shown: 'unlit', depth: '16', space: 'p3' }, from)).bytes);
    const light = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
    // luminances of the primaries, from their chromaticities (IEC 61966-2-1; SMPTE EG 432-1)
    const Y = (d: ArrayLike<number>, i: number, k: readonly number[]) =>
      k.reduce((sum, share, c) => sum + share * light(d[i + c] / 65535), 0);
    for (let i = 0; i < srgb.data.length; i += 3 * 97)
      expect(Y(p3.data, i, [0.22897, 0.69174, 0.07929])).toBeCloseTo(Y(srgb.data, i, [0.2126, 0.7152, 0.0722]), 3);
  });

  it('the ground is clear where there is no paint, and paint is not', async () => {
    const { data, channels, width } = decode((await make('png', { shown: 'clear' })).bytes);
    expect(channels).toBe(4);
    const alpha = (xMm: number, yMm: number) => data[4 * (Math.round(yMm * 5) * width + Math.round(xMm * 5)) + 3];
    expect(alpha(20, 28)).toBe(0);
    expect(alpha(20, 8)).toBeGreaterThan(200);
  });

  it('a web copy is as long as was asked and no larger than was allowed', async () => {
    const { bytes, px } = await make('web', { longest: 150, most: 10 });
    expect(bytes.length).toBeLessThanOrEqual(10_000);
    expect(Math.max(...px!)).toBe(150);
    const { width, height } = decodeJpeg(bytes);
    expect([width, height]).toEqual(px);
  });

  it.skipIf(lacks('exiftool', 'pngcheck', 'identify'))(
    'other tools read them, with their size and profile',
    async () => {
      const from = lent();
      const files: [ExportId, Record<string, unknown>, string][] = [
        ['png', {}, 'a.png'],
        ['png', { depth: '16', space: 'p3' }, 'b.png'],
        ['png', { shown: 'clear', depth: '16' }, 'c.png'],
        ['jpeg', { space: 'p3' }, 'd.jpg'],
        ['jpeg', {}, 'e.jpg'],
        ['tiff', {}, 'f.tif'],
        ['tiff', { shown: 'clear', space: 'p3' }, 'g.tif'],
        ['relief-png', {}, 'h.png'],
      ];
      for (const [as, settings, name] of files) {
        const { bytes, px } = await make(as, settings, from);
        const path = fileFor(name, bytes);
        const said = check('exiftool', '-s', '-G0', path);
        const value = (tag: string) => new RegExp(`\\s${tag}\\s*: (.*)`).exec(said)?.[1];
        expect([value('ImageWidth'), value('ImageHeight')].map(Number), name).toEqual([...px!]);
        expect(said).not.toMatch(/Warning|Error/);
        if (name.endsWith('.png')) {
          // which knows the second edition of PNG, and not yet the chunk that names a space by numbers
          if (settings.space !== 'p3') check('pngcheck', '-q', path);
          expect(Number(value('PixelsPerUnitX')), name).toBe(5000);
        } else expect(Number(value('XResolution')), name).toBe(127);
        if (settings.space === 'p3') expect(value('ProfileDescription'), name).toBe('Display P3');
        const depth = check('identify', '-format', '%z %w %h', path).split(' ');
        expect(depth[0], name).toBe(
          name < 'd' && settings.depth !== '16' ? '8' : /[degh]/.test(name[0]) && name.endsWith('jpg') ? '8' : '16',
        );
      }
    },
  );
});

describe('documents', () => {
  it.skipIf(lacks('pdfinfo', 'pdftoppm'))('a PDF has its real size, and the picture in it is ours', async () => {
    const from = lent();
    const { bytes } = await make('pdf', { margin: 10, bleed: 3, paints: true }, from);
    const path = fileFor('a.pdf', bytes);
    const said = check('pdfinfo', '-box', path);
    const box = (name: string) =>
      new RegExp(`${name}:\\s+([\\d.]+)\\s+([\\d.]+)\\s+([\\d.]+)\\s+([\\d.]+)`)
        .exec(said)!
        .slice(1)
        .map((v) => (Number(v) * 25.4) / 72);
    const near = (of: number[], mm: number[]) => of.forEach((v, i) => expect(Math.abs(v - mm[i])).toBeLessThan(0.1));
    near(box('MediaBox'), [0, 0, 67, 56]);
    near(box('TrimBox'), [13, 13, 54, 43]);
    near(box('BleedBox'), [10, 10, 57, 46]);
    expect(Number(/Pages:\s+(\d+)/.exec(said)![1])).toBeGreaterThan(1);
    // four times as fine: the middle of each of our pixels is well inside one of the page's
    check('pdftoppm', '-r', '508', '-f', '1', '-l', '1', '-singlefile', '-png', path, path);
    const page = decode(readFileSync(`${path}.png`));
    const ours = decode((await make('png', {}, from)).bytes);
    let off = 0;
    let count = 0;
    for (let y = 2; y < ours.height - 2; y++) {
      for (let x = 2; x < ours.width - 2; x++) {
        for (let c = 0; c < 3; c++) {
          const at = ((4 * (y + 65) + 2) * page.width + 4 * (x + 65) + 2) * page.channels + c;
          off += Math.abs(page.data[at] - ours.data[(y * ours.width + x) * 3 + c]);
          count++;
        }
      }
    }
    expect(off / count).toBeLessThan(2);
  });

  it('the recipe book lists what was mixed, where it is, and what to buy', async () => {
    const csv = new TextDecoder().decode((await make('recipes-csv')).bytes).split('\r\n');
    const [head, ...tubes] = csv.slice(0, csv.indexOf(''));
    expect(head).toContain('tubes to buy');
    expect(tubes.map((row) => row.split(',')[1]).sort()).toEqual(['PB29', 'PW6', 'PY43']);
    const mixtures = csv.slice(csv.indexOf('') + 2).filter((row) => /^\d/.test(row));
    expect(mixtures).toHaveLength(3);
    // in the order in which they were used, each where it was laid
    const mm = (row: string) => /#[0-9a-f]{6},([\d.]+),([\d.]+),([\d.]+)/.exec(row)!.slice(1).map(Number);
    expect(mixtures[0]).toMatch(/PW6 0\.6667; PY43 0\.3333/);
    const [ochre, blue, white] = mixtures.map(mm);
    expect(ochre[2]).toBeLessThan(16);
    expect(Math.abs(blue[2] - 22)).toBeLessThan(4);
    expect(Math.abs(white[2] - 11)).toBeLessThan(4);
    expect(ochre[0] + blue[0] + white[0]).toBeLessThan(100);
  });

  it('a journal that was sent out leads to the same painting', async () => {
    const from = lent();
    const { bytes } = await make('journal', {}, from);
    const again = replay(readJournal(JSON.parse(new TextDecoder().decode(bytes))));
    expect(digest(again)).toBe(digest(from.studio));
  });
});

describe('solids', () => {
  it('a solid is closed, and holds what lies under the relief', async () => {
    const from = lent();
    const { painting, relief } = from.picture;
    const { surface, arena, width, height } = painting;
    // a point for each cell, so that its heights are those of the relief itself
    const { bytes } = await make('stl', { points: width, times: 20, base: 3, width: 82 }, from);
    const view = new DataView(bytes.buffer);
    const faces = view.getUint32(80, true);
    expect(bytes.length).toBe(84 + 50 * faces);
    const points = new Map<string, number>();
    const edges = new Set<number>();
    let volume = 0;
    let turned = 0;
    for (let f = 0; f < faces; f++) {
      const [a, b, c] = [0, 1, 2].map((k) =>
        [0, 1, 2].map((axis) => view.getFloat32(84 + 50 * f + 12 + 12 * k + 4 * axis, true)),
      );
      volume +=
        (a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0])) /
        6;
      const ids = [a, b, c].map((corner) => {
        const name = corner.join();
        if (!points.has(name)) points.set(name, points.size);
        return points.get(name)!;
      });
      for (let k = 0; k < 3; k++) {
        const edge = ids[k] * 2 ** 25 + ids[(k + 1) % 3];
        if (edges.has(edge)) turned++;
        edges.add(edge);
      }
    }
    // every edge once each way: no hole, no fold, and all faces look outwards
    let open = 0;
    for (const edge of edges) if (!edges.has((edge % 2 ** 25) * 2 ** 25 + Math.floor(edge / 2 ** 25))) open++;
    expect([open, turned]).toEqual([0, 0]);
    // the integral of the relief over the net, by the trapezoidal rule
    let [sum, low] = [0, Infinity];
    for (let i = 0; i < width * height; i++) {
      const [x, y] = [i % width, Math.floor(i / width)];
      const ground = surface.um[(y % surface.size) * surface.size + (x % surface.size)];
      const um = arena.f32[relief + i] + (1 - surface.shading) * ground;
      const rims = (x === 0 || x === width - 1 ? 0.5 : 1) * (y === 0 || y === height - 1 ? 0.5 : 1);
      sum += um * rims;
      low = Math.min(low, um);
    }
    const cells = (width - 1) * (height - 1);
    const step = 82 / width;
    const expected = step * step * cells * (3 + (sum / cells - low) * 0.001 * 20 * (82 / (width * painting.mmPerPx)));
    expect(volume / expected).toBeCloseTo(1, 3);
  });

  it.skipIf(lacks('xmllint'))('3MF has the same solid', async () => {
    const from = lent();
    const parts = unzipSync((await make('3mf', { points: 40 }, from)).bytes);
    for (const [name, bytes] of Object.entries(parts))
      check('xmllint', '--noout', fileFor(name.replace(/\W/g, '_'), bytes));
    const model = strFromU8(parts['3D/3dmodel.model']);
    const stl = await make('stl', { points: 40 }, from);
    expect(model.match(/<triangle /g)).toHaveLength((stl.bytes.length - 84) / 50);
    expect(model).toContain('unit="millimeter"');
  });
});
