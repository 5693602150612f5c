import { PDFArray, PDFDict, PDFDocument, PDFName, PDFNumber, PDFRawStream } from 'pdf-lib';
import { inflateSync } from 'node:zlib';
import sharp, { type Sharp } from 'sharp';
import { PainterError } from '@/core/errors';
import { pngSize } from '@/core/formats/layered/pngPixels';
import type { Raster } from '@/core/formats/png';

/** What a shop finds in a file that is to be printed. */
export interface PrintFile {
  /** The picture as it is cut, mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  /** Picture beyond the cut, mm. */
  readonly bleedMm: number;
  readonly ppi: number;
  /** The picture in small: three channels of 8 bits. */
  readonly small: Raster;
}

const MM_PER_POINT = 25.4 / 72;
/** Longest side of the picture in small, and of one that is taken at all, pixels. */
const SMALL_PX = 640;
const MOST_PX = 40_000;

/** Reads a PDF or a PNG. @throws PainterError with a sentence where it cannot be printed from */
export async function readPrintFile(bytes: Uint8Array): Promise<PrintFile> {
  if (bytes.length > 4 && String.fromCharCode(...bytes.subarray(0, 5)) === '%PDF-') return readPdf(bytes);
  if (pngSize(bytes)) return readPng(bytes);
  throw new PainterError('This is neither a PDF nor a PNG: it cannot be printed from.');
}

async function readPng(bytes: Uint8Array): Promise<PrintFile> {
  const image = sharp(bytes, { limitInputPixels: MOST_PX * MOST_PX });
  const { width, height, density } = await image.metadata().catch(() => {
    throw new PainterError('This PNG is damaged.');
  });
  if (!density)
    throw new PainterError('This PNG does not say how many pixels there are to an inch: nobody knows its size.');
  const mm = (px: number) => (px / density) * 25.4;
  return {
    widthMm: mm(width),
    heightMm: mm(height),
    bleedMm: 0,
    ppi: density,
    small: await smallOf(image, 'This PNG is damaged.'),
  };
}

async function readPdf(bytes: Uint8Array): Promise<PrintFile> {
  const pdf = await PDFDocument.load(bytes).catch(() => {
    throw new PainterError('This PDF is damaged, or locked.');
  });
  if (pdf.getPageCount() === 0) throw new PainterError('There is no page in this PDF.');
  const page = pdf.getPage(0);
  const [trim, bleed] = [page.getTrimBox(), page.getBleedBox()];
  const image = imageOf(page.node.Resources());
  if (!image) throw new PainterError('There is no picture on the first page of this PDF.');
  const widthIn = bleed.width / 72;
  return {
    widthMm: trim.width * MM_PER_POINT,
    heightMm: trim.height * MM_PER_POINT,
    bleedMm: Math.max(0, Math.min(trim.x - bleed.x, trim.y - bleed.y) * MM_PER_POINT),
    ppi: image.width / widthIn,
    small: await smallOf(image.data, 'The picture in this PDF is damaged.'),
  };
}

/** The largest picture of a page: JPEG, or 8 bits of red, green and blue packed by zlib. */
function imageOf(resources: PDFDict | undefined) {
  const objects = resources?.lookupMaybe(PDFName.of('XObject'), PDFDict);
  let best: { width: number; data: Sharp } | undefined;
  for (const key of objects?.keys() ?? []) {
    const stream = objects!.lookup(key);
    if (!(stream instanceof PDFRawStream)) continue;
    const number = (name: string) => stream.dict.lookupMaybe(PDFName.of(name), PDFNumber)?.asNumber() ?? 0;
    const [width, height] = [number('Width'), number('Height')];
    if (width < 1 || height < 1 || Math.max(width, height) > MOST_PX || width <= (best?.width ?? 0)) continue;
    const filter = stream.dict.lookup(PDFName.of('Filter'));
    const named = filter instanceof PDFArray ? filter.lookup(0) : filter;
    if (named === PDFName.of('DCTDecode')) best = { width, data: sharp(stream.contents) };
    else if (named === PDFName.of('FlateDecode')) {
      const size = width * height * 3;
      // room for exactly one picture of this size: whatever unpacks to more is refused
      const raw = unpacked(stream.contents, size);
      if (raw?.length === size) best = { width, data: sharp(raw, { raw: { width, height, channels: 3 } }) };
    }
  }
  return best;
}

function unpacked(bytes: Uint8Array, size: number): Uint8Array | undefined {
  try {
    return inflateSync(bytes, { maxOutputLength: size + 1 });
  } catch {
    return undefined;
  }
}

/** @param else_ why it cannot be read */
async function smallOf(image: Sharp, else_: string): Promise<Raster> {
  const { data, info } = await image
    .flatten({ background: '#fff' })
    .toColourspace('srgb')
    .resize(SMALL_PX, SMALL_PX, { fit: 'inside', withoutEnlargement: true })
    .raw()
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw new PainterError(else_);
    });
  return { width: info.width, height: info.height, channels: 3, data: new Uint8Array(data) };
}
