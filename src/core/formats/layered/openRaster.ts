import { strToU8, zipSync } from 'fflate';
import type { BlendMode } from '@/core/colour/blendModes';
import type { Layer } from '@/core/film/layer';
import { coverageOf } from '@/core/film/coverage';
import { holdsPixels } from '@/core/film/layerLook';
import type { Painting } from '@/core/film/painting';
import { TILE } from '@/core/film/cells';
import { wholeRect } from '@/core/film/tilesIn';
import { encodePng, type Raster } from '@/core/formats/png';
import type { Step } from '@/core/formats/step';
import { albedoOf } from '@/core/picture/layers/albedo';
import { PLAIN_VIEW } from '@/core/picture/viewOptions';

/** Names of blend modes in OpenRaster 0.0.5, "composite-op". */
export const COMPOSITE_OPS: Record<BlendMode, string> = {
  normal: 'svg:src-over',
  multiply: 'svg:multiply',
  screen: 'svg:screen',
  overlay: 'svg:overlay',
  darken: 'svg:darken',
  lighten: 'svg:lighten',
  'color-dodge': 'svg:color-dodge',
  'color-burn': 'svg:color-burn',
  'hard-light': 'svg:hard-light',
  'soft-light': 'svg:soft-light',
  difference: 'svg:difference',
  exclusion: 'svg:exclusion',
  hue: 'svg:hue',
  saturation: 'svg:saturation',
  color: 'svg:color',
  luminosity: 'svg:luminosity',
};

/** Longest side of the small picture that belongs into the file, pixels. */
const THUMBNAIL = 256;

/** A colour that is so close is the same: rounding, of 255. */
const CLOSE = 0.6;

/** What was laid into the colours of layers, for the format does not know it; a sentence for each. */
export interface OpenRasterFile {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly laidIn: readonly string[];
}

interface Element {
  readonly name: string;
  readonly file?: string;
  readonly members?: readonly Element[];
  readonly opacity: number;
  readonly visible: boolean;
  readonly op: string;
}

/**
 * A painting as OpenRaster: the ground, and every layer as it is seen, without light. Paint lies on paint by its own
 * optics, which no format of layers knows: so a layer gets the colours that, laid over what is below it, give what is seen.
 * Pixels keep their blend mode and opacity.
 */
export function openRaster(painting: Painting, step: Step = () => {}): OpenRasterFile {
  const { layers, width, height } = painting;
  const files: Record<string, Uint8Array> = {};
  const laidIn: string[] = [];
  const picture = (codes: Uint32Array): Uint8Array =>
    encodePng({ width, height, channels: 4, data: new Uint8Array(codes.slice().buffer) }, painting.spec.ppi);
  const whole = wholeRect(painting);
  const below = (top: readonly Layer[], shown?: Layer) => {
    const without = layers.filter((layer) => !top.includes(layer)).map((layer) => layer.id);
    const looks = new Map(shown ? [[shown.id, { ...shown.look, visible: true }]] : []);
    return albedoOf(painting).raster(whole, { ...PLAIN_VIEW, without, looks });
  };
  let made = 0;
  const file = (codes: Uint32Array): string => {
    const name = `data/layer${made++}.png`;
    files[name] = picture(codes);
    return name;
  };
  const seen: Layer[] = [];
  const ground = below([]);
  // what a program that composites has got to: what is lost by rounding is made up for by the next layer
  let backdrop = channelsOf(ground);
  const root: Element[] = [{ name: 'Ground', file: file(ground), opacity: 1, visible: true, op: COMPOSITE_OPS.normal }];
  /** Lays one layer, or a group as one, over what is there. */
  const single = (layer: Layer, members: readonly Layer[]): Element => {
    step(made / (layers.length + 2));
    const { look } = layer;
    const own = ownPixels(painting, layer, members);
    const { opacity, visible, name } = look;
    const shown = [...seen, ...members];
    const after = below(shown, visible ? undefined : layer);
    const laidOver = own ? undefined : over(painting, backdrop, after, layer);
    const codes = own ?? laidOver!.codes;
    const laid = own === undefined && (look.blend !== 'normal' || opacity < 1 || layer.kind === 'adjust' || look.clip);
    if (laid) laidIn.push(`"${name}": what it does to the layers below is laid into its colours.`);
    else if (look.mask?.on) laidIn.push(`"${name}": its mask is laid into its colours.`);
    if (visible) {
      seen.push(...members);
      backdrop = laidOver ? laidOver.after : channelsOf(after);
    }
    return {
      name,
      file: file(codes),
      opacity: own ? opacity : 1,
      visible,
      op: own ? COMPOSITE_OPS[look.blend] : COMPOSITE_OPS.normal,
    };
  };
  const stackOf = (group: string | undefined, into: Element[]): void => {
    for (const layer of layers.filter((l) => l.look.group === group)) {
      if (layer.kind !== 'group') {
        into.push(single(layer, [layer]));
        continue;
      }
      const { look } = layer;
      const members = withMembers(layers, layer);
      const plain = look.visible && look.opacity === 1 && look.blend === 'normal' && !look.mask?.on && !look.clip;
      if (!plain) {
        into.push(single(layer, members));
        continue;
      }
      seen.push(layer);
      const inside: Element[] = [];
      stackOf(layer.id, inside);
      into.push({ name: look.name, members: inside, opacity: 1, visible: true, op: COMPOSITE_OPS.normal });
    }
  };
  stackOf(undefined, root);
  const merged = below(layers);
  files['stack.xml'] = strToU8(stackXml(painting, root));
  files['mergedimage.png'] = picture(merged);
  files['Thumbnails/thumbnail.png'] = thumbnail(merged, width, height);
  const bytes = zipSync({ mimetype: [strToU8('image/openraster'), { level: 0 }], ...files }, { level: 0 });
  return { bytes: bytes as Uint8Array<ArrayBuffer>, laidIn };
}

const withMembers = (layers: readonly Layer[], layer: Layer): Layer[] => [
  layer,
  ...layers.filter((l) => l.look.group === layer.id).flatMap((l) => withMembers(layers, l)),
];

/** The pixels of a layer of pixels, whose blend mode and opacity the format knows; undefined where it is more than that. */
function ownPixels(painting: Painting, layer: Layer, members: readonly Layer[]): Uint32Array | undefined {
  if (members.length > 1 || !holdsPixels(layer.kind) || layer.look.clip || layer.look.mask?.on) return undefined;
  const { width, height, tilesX } = painting;
  const codes = new Uint32Array(width * height);
  layer.forEachTile(({ pixels }, index) => {
    if (!pixels) return;
    const [left, top] = [(index % tilesX) * TILE, Math.floor(index / tilesX) * TILE];
    for (let y = 0; y < Math.min(TILE, height - top); y++) {
      const row = pixels.subarray(y * TILE, y * TILE + Math.min(TILE, width - left));
      codes.set(row, (top + y) * width + left);
    }
  });
  return codes;
}

const channelsOf = (codes: Uint32Array): Float32Array =>
  Float32Array.from({ length: 3 * codes.length }, (_, i) => (codes[Math.floor(i / 3)] >>> (8 * (i % 3))) & 255);

/**
 * Colours with alpha that, laid over a backdrop, give what is seen: as much alpha as the layer covers, and more where its
 * colour would else lie beyond what can be written.
 * @param backdrop 0..255, three a cell @returns the colours, and what they give
 */
function over(painting: Painting, backdrop: Float32Array, seen: Uint32Array, layer: Layer) {
  const { width, height, tilesX } = painting;
  const covers = new Map<number, Float32Array | undefined>();
  const codes = new Uint32Array(width * height);
  const after = backdrop.slice();
  for (let i = 0; i < codes.length; i++) {
    const [x, y] = [i % width, Math.floor(i / width)];
    const index = (y >> 6) * tilesX + (x >> 6);
    if (!covers.has(index)) covers.set(index, coverageOf(painting, layer, index));
    const covered = layer.kind === 'adjust' ? 0 : (covers.get(index)?.[(y & 63) * TILE + (x & 63)] ?? 0);
    let alpha = Math.round(255 * covered * layer.look.opacity);
    for (let c = 0; c < 3; c++) {
      const [from, to] = [backdrop[3 * i + c], (seen[i] >>> (8 * c)) & 255];
      const far = Math.abs(to - from);
      if (far > CLOSE) alpha = Math.max(alpha, Math.ceil((255 * far) / (to > from ? 255 - from : from)));
    }
    if (alpha === 0) continue;
    alpha = Math.min(255, alpha);
    let code = alpha << 24;
    for (let c = 0; c < 3; c++) {
      const [from, to] = [backdrop[3 * i + c], (seen[i] >>> (8 * c)) & 255];
      const own = Math.min(255, Math.max(0, Math.round(from + ((to - from) * 255) / alpha)));
      after[3 * i + c] = from + ((own - from) * alpha) / 255;
      code |= own << (8 * c);
    }
    codes[i] = code >>> 0;
  }
  return { codes, after };
}

const attribute = (text: string) =>
  text
    // what XML 1.0 has no sign for
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/"/g, '&quot;');

function stackXml({ width, height, spec }: Painting, root: readonly Element[]): string {
  const said = ({ name, opacity, visible, op }: Element) =>
    `name="${attribute(name)}" opacity="${opacity}" visibility="${visible ? 'visible' : 'hidden'}" composite-op="${op}"`;
  const written = (element: Element): string =>
    element.members
      ? `<stack ${said(element)} isolation="auto">${stack(element.members)}</stack>`
      : `<layer ${said(element)} src="${element.file}" x="0" y="0"/>`;
  // the first of a stack lies on top
  const stack = (elements: readonly Element[]) => [...elements].reverse().map(written).join('');
  const ppi = Math.round(spec.ppi);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.5" w="${width}" h="${height}" xres="${ppi}" yres="${ppi}"><stack>${stack(root)}</stack></image>\n`;
}

function thumbnail(codes: Uint32Array, width: number, height: number): Uint8Array {
  const scale = Math.min(1, THUMBNAIL / Math.max(width, height));
  const [w, h] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
  const small = new Uint32Array(w * h);
  for (let i = 0; i < small.length; i++) {
    const [x, y] = [i % w, Math.floor(i / w)];
    small[i] =
      codes[
        Math.min(height - 1, Math.floor((y + 0.5) / scale)) * width + Math.min(width - 1, Math.floor((x + 0.5) / scale))
      ];
  }
  const raster: Raster = { width: w, height: h, channels: 4, data: new Uint8Array(small.buffer) };
  return encodePng(raster, 72);
}
