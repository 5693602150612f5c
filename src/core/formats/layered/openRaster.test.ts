import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { commandSchema } from '@/core/commands/commands';
import { packedBytes } from '@/measure/packedBytes';
import { wholeRect } from '@/core/film/tilesIn';
import { encodePng } from '@/core/formats/png';
import type { Studio } from '@/core/journal/studio';
import { albedoOf } from '@/core/picture/layers/albedo';
import { field, line, loaded, paint, studioFor } from '@/measure/bench';
import { check, fileFor, lacks } from '@/measure/checkers';
import { openRaster } from './openRaster';
import { readOpenRaster, type LayersRead } from './readOpenRaster';

/** Pixels that differ everywhere, with alpha. */
const noise = (width: number, height: number, seed: number) =>
  Uint8Array.from({ length: width * height * 4 }, (_, i) => (i * 7919 * seed + ((i * i) >> 3) * 31 + seed * 97) & 255);

function picture(studio: Studio, name: string, blend: string, opacity: number, seed: number): void {
  const [widthPx, heightPx] = [studio.painting.width, studio.painting.height];
  paint(studio, {
    do: 'layer.picture',
    name,
    widthPx,
    heightPx,
    rgba: packedBytes(noise(widthPx, heightPx, seed)),
    fit: 'whole',
    blend: blend as never,
    opacity,
  });
}

/** Paint over paint, pixels in modes, a group, an adjustment, a mask, something hidden. */
function layered(): Studio {
  const studio = studioFor(30, 21, { ppi: 90 });
  paint(studio, ...field([0, 0, 30, 12], { PY43: 1, PW6: 2 }, 9), { do: 'dry' });
  paint(studio, { do: 'layer.add', kind: 'paint', name: 'Glaze & "gloss" <1>' });
  paint(studio, ...loaded('flat', 9, { PB29: 1 }, { thin: 0.8 }), line(2, 8, 28, 10), line(2, 14, 28, 15));
  picture(studio, 'Texture', 'soft-light', 0.6, 3);
  picture(studio, 'Hue', 'hue', 0.8, 5);
  paint(studio, { do: 'layer.add', kind: 'paint', name: 'Half' });
  paint(studio, ...loaded('round', 6, { PR254: 1, PW6: 1 }), line(4, 4, 26, 18));
  const half = studio.painting.activeLayer;
  paint(studio, { do: 'layer.set', layer: half, opacity: 0.5 });
  picture(studio, 'Hidden', 'multiply', 1, 7);
  paint(studio, { do: 'layer.set', layer: studio.painting.activeLayer, visible: false });
  return studio;
}

/** Composites what was read, by the formulas of "Compositing and Blending Level 1", worked out here anew. */
function composited({ layers, width, height }: LayersRead): Float64Array {
  const out = new Float64Array(width * height * 3);
  const lum = (c: number[]) => 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2];
  const clip = (c: number[]) => {
    const [l, n, x] = [lum(c), Math.min(...c), Math.max(...c)];
    let d = c;
    if (n < 0) d = d.map((v) => l + ((v - l) * l) / (l - n));
    if (x > 1) d = d.map((v) => l + ((v - l) * (1 - l)) / (x - l));
    return d;
  };
  const setLum = (c: number[], l: number) => clip(c.map((v) => v + l - lum(c)));
  const setSat = (c: number[], s: number) => {
    const [min, max] = [Math.min(...c), Math.max(...c)];
    return max > min ? c.map((v) => ((v - min) * s) / (max - min)) : [0, 0, 0];
  };
  const sat = (c: number[]) => Math.max(...c) - Math.min(...c);
  const blends: Record<string, (b: number[], s: number[]) => number[]> = {
    normal: (_, s) => s,
    multiply: (b, s) => b.map((v, k) => v * s[k]),
    'soft-light': (b, s) =>
      b.map((v, k) => {
        if (s[k] <= 0.5) return v - (1 - 2 * s[k]) * v * (1 - v);
        return v + (2 * s[k] - 1) * ((v <= 0.25 ? ((16 * v - 12) * v + 4) * v : Math.sqrt(v)) - v);
      }),
    hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
  };
  for (const { rgba, opacity, visible, blend } of layers) {
    if (!visible) continue;
    for (let i = 0; i < width * height; i++) {
      const b = [0, 1, 2].map((c) => out[3 * i + c]);
      const s = [0, 1, 2].map((c) => rgba[4 * i + c] / 255);
      const a = (rgba[4 * i + 3] / 255) * opacity;
      const mixed = blends[blend](b, s);
      for (let c = 0; c < 3; c++) out[3 * i + c] = (1 - a) * b[c] + a * mixed[c];
    }
  }
  return out;
}

/** Largest difference of a composite from codes, of 255. */
function farthest(all: Float64Array, codes: ArrayLike<number>, channels: number): number {
  let worst = 0;
  for (let i = 0; i < all.length / 3; i++)
    for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(255 * all[3 * i + c] - codes[channels * i + c]));
  return worst;
}

describe('OpenRaster out', () => {
  it('its layers, laid over one another by the standard, are our picture', async () => {
    const studio = layered();
    const { bytes, laidIn } = openRaster(studio.painting);
    const read = await readOpenRaster(bytes);
    expect(read.says).toEqual([]);
    expect(read.layers.map(({ name, visible, blend }) => [name, visible, blend])).toEqual([
      ['Ground', true, 'normal'],
      ['Sketch', true, 'normal'],
      ['Paint', true, 'normal'],
      ['Glaze & "gloss" <1>', true, 'normal'],
      ['Texture', true, 'soft-light'],
      ['Hue', true, 'hue'],
      ['Half', true, 'normal'],
      ['Hidden', false, 'multiply'],
    ]);
    expect(read.layers.map(({ opacity }) => opacity)).toEqual([1, 1, 1, 1, 0.6, 0.8, 1, 1]);
    expect(laidIn).toEqual(['"Half": what it does to the layers below is laid into its colours.']);
    const ours = new Uint8Array(albedoOf(studio.painting).raster(wholeRect(studio.painting)).buffer);
    expect(farthest(composited(read), ours, 4)).toBeLessThan(1.6);
    const merged = decode(unzipSync(bytes)['mergedimage.png']);
    expect([...merged.data].every((v, i) => v === ours[i])).toBe(true);
    // a glaze is not opaque, and what it does not touch is clear
    const glaze = read.layers[3].rgba;
    expect(glaze[4 * 5 + 3]).toBe(0);
    expect(Math.max(...glaze.filter((_, i) => i % 4 === 3))).toBeGreaterThan(60);
  });

  it('groups are stacks; what a group does as a whole, adjustments and masks are laid in', async () => {
    const studio = layered();
    paint(studio, { do: 'layer.add', kind: 'group', name: 'Boats' });
    const group = studio.painting.activeLayer;
    paint(studio, { do: 'layer.add', kind: 'paint', name: 'Dinghy', group });
    paint(studio, ...loaded('flat', 5, { PG7: 1, PW6: 1 }), line(5, 16, 20, 16));
    paint(studio, {
      do: 'layer.add',
      kind: 'adjust',
      name: 'Greyer',
      adjust: { kind: 'warmth', warmth: 0.4 } as never,
    });
    const { bytes, laidIn } = openRaster(studio.painting);
    const stack = strFromU8(unzipSync(bytes)['stack.xml']);
    expect(stack).toMatch(/<stack name="Boats"[^>]*><layer name="Greyer"[^>]*><layer name="Dinghy"[^>]*><\/stack>/);
    expect(laidIn.some((said) => said.includes('Greyer'))).toBe(true);
    const read = await readOpenRaster(bytes);
    const ours = new Uint8Array(albedoOf(studio.painting).raster(wholeRect(studio.painting)).buffer);
    expect(farthest(composited(read), ours, 4)).toBeLessThan(1.6);
  });

  it.skipIf(lacks('xmllint'))('its list of layers is XML, and its first entry says what it is', () => {
    const { bytes } = openRaster(layered().painting);
    check('xmllint', '--noout', fileFor('stack.xml', unzipSync(bytes)['stack.xml']));
    expect(strFromU8(bytes.subarray(30, 30 + 8 + 16))).toBe('mimetypeimage/openraster');
  });
});

const file = (stack: string, more: Record<string, Uint8Array> = {}) =>
  zipSync({ mimetype: strToU8('image/openraster'), 'stack.xml': strToU8(stack), ...more });
const dot = encodePng({ width: 2, height: 1, channels: 4, data: Uint8Array.of(9, 8, 7, 255, 1, 2, 3, 128) }, 72);

describe('OpenRaster in', () => {
  it('what is foreign is told, and the rest is read', async () => {
    const read = await readOpenRaster(
      file(
        `<image w="4" h="3"><stack><layer name="A" src="a.png" x="3" y="1" composite-op="other:burn" opacity="7"/>
        <layer name="B" src="gone.png"/><stack name="G" opacity="0.5" composite-op="svg:multiply"><layer src="a.png" x="-1" opacity="0.5"/></stack>
        <filter/><layer name="C" src="bad.png"/></stack></image>`,
        { 'a.png': dot, 'bad.png': dot.subarray(0, 40) },
      ),
    );
    expect(read.layers.map(({ name, opacity, blend, group }) => [name, opacity, blend, group])).toEqual([
      ['Layer 1', 0.5, 'normal', 0],
      ['A', 1, 'normal', undefined],
    ]);
    expect(read.groups).toEqual([{ name: 'G', opacity: 0.5, visible: true, within: undefined }]);
    expect([...read.layers[0].rgba.subarray(0, 8)]).toEqual([1, 2, 3, 128, 0, 0, 0, 0]);
    expect([...read.layers[1].rgba.subarray(4 * (4 + 3), 4 * (4 + 4))]).toEqual([9, 8, 7, 255]);
    expect(read.says).toHaveLength(4);
  });

  it.each([
    ['nothing', new Uint8Array()],
    ['no archive', strToU8('a picture?')],
    ['no stack', zipSync({ mimetype: strToU8('image/openraster') })],
    ['entities', file('<!DOCTYPE a [<!ENTITY b "c">]><image w="4" h="4"><stack/></image>')],
    ['an open element', file('<image w="4" h="4"><stack>')],
    ['no size', file('<image><stack><layer src="a.png"/></stack></image>', { 'a.png': dot })],
    ['30,000 px', file('<image w="30000" h="30000"><stack><layer src="a.png"/></stack></image>', { 'a.png': dot })],
    ['no layer', file('<image w="4" h="4"><stack/></image>')],
    ['deep', file(`<image w="4" h="4">${'<stack>'.repeat(60)}${'</stack>'.repeat(60)}</image>`)],
    ['a bomb', zipSync({ 'stack.xml': new Uint8Array(300e6) }, { level: 9 })],
  ])('%s is refused in a sentence', async (_, bytes) => {
    await expect(readOpenRaster(bytes)).rejects.toThrow(/^[A-Z].*\.$/);
  });

  it('a hundred layers are read, in their order', async () => {
    const layers = Array.from({ length: 100 }, (_, i) => `<layer name="${i}" src="a.png"/>`).join('');
    const read = await readOpenRaster(file(`<image w="4" h="3"><stack>${layers}</stack></image>`, { 'a.png': dot }));
    expect(read.layers.map(({ name }) => Number(name))).toEqual(Array.from({ length: 100 }, (_, i) => 99 - i));
  });

  it('what went out comes back: names, order, modes, opacity, and the picture', async () => {
    const studio = layered();
    const read = await readOpenRaster(openRaster(studio.painting).bytes);
    const again = studioFor(30, 21, { ppi: 90 });
    for (const { name, blend, opacity, rgba, visible } of read.layers) {
      const { width: widthPx, height: heightPx } = read;
      const command = {
        do: 'layer.picture',
        name,
        widthPx,
        heightPx,
        rgba: packedBytes(rgba),
        fit: 'whole',
        blend,
        opacity,
      };
      again.apply(commandSchema.parse(command));
      if (!visible) paint(again, { do: 'layer.set', layer: again.painting.activeLayer, visible });
    }
    const [ours, theirs] = [studio, again].map(
      ({ painting }) => new Uint8Array(albedoOf(painting).raster(wholeRect(painting)).buffer),
    );
    let worst = 0;
    ours.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - theirs[i]))));
    expect(worst).toBeLessThanOrEqual(2);
  });
});
