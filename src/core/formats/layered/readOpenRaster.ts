import { XMLParser } from 'fast-xml-parser';
import { strFromU8 } from 'fflate';
import { BLEND_MODES, type BlendMode } from '@/core/colour/blendModes';
import { PainterError } from '@/core/errors';
import { Archive, ArchiveError } from '@/core/formats/archive';
import { xmlText } from '@/core/formats/xmlText';
import { COMPOSITE_OPS } from './openRaster';
import { pngPixels, pngSize } from './pngPixels';

/** A layer of a file as a picture of its own, as large as the whole. */
export interface LayerRead {
  readonly name: string;
  readonly opacity: number;
  readonly visible: boolean;
  readonly blend: BlendMode;
  /** The group that it lies in, of those of the file; none where this is left out. */
  readonly group?: number;
  /** RGBA, not multiplied by alpha. */
  readonly rgba: Uint8Array<ArrayBuffer>;
}

/** A group of a file: it lies in another, which comes before it, or in none. */
export interface GroupRead extends Pick<LayerRead, 'name' | 'opacity' | 'visible'> {
  readonly within?: number;
}

/** What could be read of a file. */
export interface LayersRead {
  readonly width: number;
  readonly height: number;
  /** The lowest first. */
  readonly layers: readonly LayerRead[];
  /** Those that layers lie in, in the order in which they come from below. */
  readonly groups: readonly GroupRead[];
  /** What could not be taken over, a sentence each. */
  readonly says: readonly string[];
}

const MB = 2 ** 20;
const LIMITS = { entries: 2000, unpacked: 2 ** 30, small: 64 * MB, ratio: 400 };
const MOST = { stack: 4 * MB, png: 256 * MB };
/** Most layers, largest picture (pixels along a side, and in all), deepest nesting of groups. */
const MOST_LAYERS = 200;
const MOST_PX = 8192;
const MOST_CELLS = 40e6;
const DEEPEST = 24;
/** Letters of a layer's name. */
const MOST_NAME = 60;

const NAME = '@';
const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: NAME,
  processEntities: false,
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
});

/** An element as the parser gives it: its name with what is in it, and its attributes under ":@". */
type Element = Record<string, unknown>;
const isList = (value: unknown): value is Element[] => Array.isArray(value);

function attribute(element: Element, name: string): string | undefined {
  const all = element[':@'] as Record<string, unknown> | undefined;
  const value = all?.[NAME + name];
  return typeof value === 'string' ? xmlText(value) : undefined;
}
/** A number between bounds; what is none is `otherwise`. */
function number(text: string | undefined, least: number, most: number, otherwise: number): number {
  const value = text === undefined || text.trim() === '' ? NaN : Number(text);
  return Number.isFinite(value) ? Math.min(most, Math.max(least, value)) : otherwise;
}

const modeOf = new Map(BLEND_MODES.map((mode) => [COMPOSITE_OPS[mode], mode]));

/**
 * Reads an OpenRaster file: what it says that is not known here is told, and the rest is taken over.
 * @throws PainterError with a sentence when it is none, is damaged, or is larger than a painting can be
 */
export async function readOpenRaster(bytes: Uint8Array): Promise<LayersRead> {
  const says: string[] = [];
  const archive = await Archive.open(bytes, LIMITS).catch((error: unknown) => {
    throw new PainterError(
      error instanceof ArchiveError && error.fault === 'too much'
        ? 'This file unpacks to more than a painting can be.'
        : 'This is no OpenRaster file, or it is damaged.',
    );
  });
  const stack = await archive.read('stack.xml', MOST.stack).catch(() => undefined);
  if (!stack) throw new PainterError('This is no OpenRaster file: its list of layers is missing or damaged.');
  const { width, height, root } = readStack(strFromU8(stack));
  const flat: { element: Element; group?: number }[] = [];
  const found: GroupRead[] = [];
  const named = (element: Element, otherwise: string) =>
    (attribute(element, 'name')?.trim() || otherwise).slice(0, MOST_NAME);
  const seen = (element: Element) => ({
    opacity: number(attribute(element, 'opacity'), 0, 1, 1),
    visible: attribute(element, 'visibility') !== 'hidden',
  });
  const gather = (elements: readonly Element[], within: number | undefined, depth: number) => {
    if (depth > DEEPEST) throw new PainterError('This file is nested more deeply than layers ever are.');
    // the first lies on top
    for (const element of [...elements].reverse()) {
      if (isList(element.stack)) {
        const name = named(element, `Group ${found.length + 1}`);
        const op = attribute(element, 'composite-op') ?? COMPOSITE_OPS.normal;
        if (op !== COMPOSITE_OPS.normal)
          says.push(`The group "${name}" has the mode ${op.slice(0, 40)}: its layers are taken over as they are.`);
        found.push({ name, ...seen(element), within });
        gather(element.stack, found.length - 1, depth + 1);
      } else if ('layer' in element) flat.push({ element, group: within });
      if (flat.length + found.length > MOST_LAYERS)
        throw new PainterError(`This file has more than ${MOST_LAYERS} layers and groups.`);
    }
  };
  gather(root, undefined, 1);
  const layers: LayerRead[] = [];
  for (const { element, group } of flat) {
    const name = named(element, `Layer ${layers.length + 1}`);
    const op = attribute(element, 'composite-op') ?? COMPOSITE_OPS.normal;
    const blend = modeOf.get(op);
    if (!blend)
      says.push(`"${name}" has a mode that is not known here (${op.slice(0, 40)}): it is taken over as normal.`);
    const src = attribute(element, 'src') ?? '';
    const png = await archive.read(src, MOST.png).catch(() => undefined);
    const image = png && pixelsOf(png);
    if (!image) {
      says.push(`"${name}" is left out: its picture is missing or damaged.`);
      continue;
    }
    const x = Math.round(number(attribute(element, 'x'), -1e5, 1e5, 0));
    const y = Math.round(number(attribute(element, 'y'), -1e5, 1e5, 0));
    const rgba = new Uint8Array(width * height * 4);
    const [from, to] = [Math.max(0, x), Math.min(width, x + image.width)];
    for (let row = Math.max(0, y); row < Math.min(height, y + image.height) && to > from; row++) {
      const at = ((row - y) * image.width + from - x) * 4;
      rgba.set(image.rgba.subarray(at, at + 4 * (to - from)), (row * width + from) * 4);
    }
    layers.push({ name, ...seen(element), blend: blend ?? 'normal', group, rgba });
  }
  if (layers.length === 0) throw new PainterError('There is no layer in this file that could be read.');
  return { width, height, layers, groups: found, says };
}

function pixelsOf(png: Uint8Array) {
  const size = pngSize(png);
  if (!size || Math.max(size.width, size.height) > MOST_PX || size.width * size.height > MOST_CELLS) return undefined;
  return pngPixels(png);
}

function readStack(text: string): { width: number; height: number; root: readonly Element[] } {
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    throw new PainterError('This file declares a document type of its own, which layers never need: it is not opened.');
  let tree: unknown;
  try {
    tree = parser.parse(text, true);
  } catch {
    throw new PainterError('This is no OpenRaster file: its list of layers does not close.');
  }
  const image = isList(tree) ? tree.find((element) => isList(element.image)) : undefined;
  if (!image) throw new PainterError('This is no OpenRaster file: there is no image in its list of layers.');
  const [width, height] = [number(attribute(image, 'w'), 0, 1e9, 0), number(attribute(image, 'h'), 0, 1e9, 0)].map(
    Math.floor,
  );
  if (width < 1 || height < 1) throw new PainterError('This OpenRaster file does not say how large it is.');
  if (Math.max(width, height) > MOST_PX || width * height > MOST_CELLS)
    throw new PainterError(
      `This file is ${width} x ${height} pixels: at most ${MOST_PX} along a side can be taken in.`,
    );
  return {
    width,
    height,
    root: (image.image as Element[]).flatMap((element) => (isList(element.stack) ? element.stack : [])),
  };
}
