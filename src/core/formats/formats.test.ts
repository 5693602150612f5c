import { decode } from 'fast-png';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/errors';
import { Picture } from '@/core/picture/picture';
import { field, paint, studioFor } from '@/measure/bench';
import { encodePlanes, pictureRaster } from './planes';
import { encodePng } from './png';
import { readStigmosFile } from './readStigmosFile';
import { encodeStigmosFile } from './stigmosFile';

const painted = () => {
  const studio = studioFor(30, 20, { seed: 3 });
  paint(studio, ...field([2, 2, 26, 16], { PR188: 1, PW6: 2 }, 10));
  return studio;
};

describe('PNG', () => {
  it('carries pixels, resolution and colour space', () => {
    const data = Uint8Array.from({ length: 4 * 3 * 3 }, (_, i) => i * 7);
    const png = encodePng({ width: 4, height: 3, channels: 3, data }, 300);
    const read = decode(png);
    expect([read.width, read.height, read.channels, read.depth]).toEqual([4, 3, 3, 8]);
    expect([...read.data]).toEqual([...data]);
    expect(read.resolution).toEqual({ x: 11811, y: 11811, unit: 1 });
    expect(Buffer.from(png).includes('sRGB')).toBe(true);
  });

  it('keeps 16 bits', () => {
    const data = Uint16Array.from([0, 1, 256, 65535]);
    const read = decode(encodePng({ width: 2, height: 2, channels: 1, data }, 150));
    expect(read.depth).toBe(16);
    expect([...read.data]).toEqual([...data]);
  });
});

describe('planes', () => {
  it('say in their units what the paint is', () => {
    const studio = painted();
    const picture = new Picture(studio.painting);
    picture.update({ left: 0, top: 0, right: studio.painting.width, bottom: studio.painting.height });
    const { files, units } = encodePlanes(picture);
    expect(Object.keys(files).sort()).toEqual([
      'albedo',
      'mass-PR188',
      'mass-PW6',
      'relief',
      'surface',
      'thickness',
      'wetness',
    ]);
    const mass = decode(files['mass-PW6']);
    const area = studio.painting.cellArea;
    let sum = 0;
    for (const step of mass.data) sum += step * units['mass-PW6'].unit * area;
    expect(sum / studio.massBalance().PW6.film).toBeCloseTo(1, 2);
    expect(decode(files.albedo).depth).toBe(16);
  });
});

describe('the own file', () => {
  const lamp = { azimuth: 90, elevation: 12, room: 0.2, finish: 1, warmth: -0.5 };
  const photo = { name: 'Pier.jpg', type: 'image/jpeg', bytes: Uint8Array.of(1, 2, 3) };

  it('brings everything back', async () => {
    const studio = painted();
    const file = await readStigmosFile(
      encodeStigmosFile(studio, studio.history, 'Pier', [photo], { thumbnail: Uint8Array.of(9), lamp }),
    );
    expect(file.title).toBe('Pier');
    expect(file.photos).toEqual([photo]);
    expect(file.journal.entries).toEqual(studio.history);
    expect(file.digest).toBe(digest(studio));
    expect(file.tiles.length).toBe(studio.painting.active.tiles.filter(Boolean).length);
    expect(file.thumbnail).toEqual(Uint8Array.of(9));
    expect(file.lamp).toEqual(lamp);
  });

  it('is refused in a sentence when something is wrong with it', async () => {
    const studio = painted();
    const good = encodeStigmosFile(studio, studio.history, 'x', []);
    const parts = unzipSync(good);
    const without = (name: string) => zipSync(Object.fromEntries(Object.entries(parts).filter(([n]) => n !== name)));
    const changed = (name: string, text: string) => zipSync({ ...parts, [name]: strToU8(text) });
    const refused = async (bytes: Uint8Array, message: RegExp) => {
      const why = await readStigmosFile(bytes).catch((error: unknown) => error);
      expect(why).toBeInstanceOf(PainterError);
      expect((why as Error).message).toMatch(message);
    };
    await refused(new Uint8Array(0), /no Stigmos painting, or the file is damaged/);
    await refused(good.subarray(0, good.length - 40), /damaged/);
    await refused(without('manifest.json'), /manifest is missing/);
    await refused(changed('manifest.json', '{'), /manifest is damaged/);
    await refused(changed('manifest.json', '{"format":"other"}'), /manifest is damaged/);
    await refused(changed('journal.json', '{"format":"stigmos-journal","version":1}'), /journal is damaged/);
    const tile = Object.keys(parts).find((n) => n.startsWith('tiles/'))!;
    await refused(
      changed('state.json', '{}'),
      /^This file is damaged: its paint is lost\. It can be painted again from its \d+ strokes\.$/,
    );
    await refused(without(tile), /painted again/);
  });

  it('shows the whole picture', () => {
    const studio = painted();
    const picture = new Picture(studio.painting);
    picture.update({ left: 0, top: 0, right: studio.painting.width, bottom: studio.painting.height });
    const { width, height, data } = pictureRaster(picture, false);
    expect(data.length).toBe(width * height * 3);
    const middle = (Math.floor(height / 2) * width + Math.floor(width / 2)) * 3;
    expect(data[middle]).toBeGreaterThan(data[middle + 1] + 40);
  });
});
