import { PDFDocument, rgb, type PDFPage } from 'pdf-lib';
import { encodeJpeg } from '@/core/formats/pictures/jpeg';
import { encodePng, type Raster } from '@/core/formats/png';
import type { RecipeBook } from '@/core/formats/recipes/recipeBook';
import { addRecipePages } from '@/core/formats/recipes/recipePdf';
import { POINTS } from './pdfText';

/** How a picture is laid on a sheet, mm. */
export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Paper around the picture and its bleed. */
  readonly marginMm: number;
  /** What of its rim is repeated outside, so that a cut that is off shows no white. */
  readonly bleedMm: number;
  readonly cropMarks: boolean;
  /** JPEG quality of the picture; as it is where left out. */
  readonly quality?: number;
  readonly title: string;
  /** Its paint list as pages of its own. */
  readonly paints?: RecipeBook;
}

/** Length of crop marks and their distance from the bleed, mm. */
const MARK = 5;
const AWAY = 2;

/** A picture with its rim mirrored outside by some pixels. */
export function withBleed({ width, height, data }: Raster, px: number): Raster {
  if (px === 0) return { width, height, channels: 3, data };
  const wide = width + 2 * px;
  const high = height + 2 * px;
  const out = new Uint8Array(wide * high * 3);
  const mirror = (at: number, size: number) => {
    const v = at < 0 ? -1 - at : at >= size ? 2 * size - 1 - at : at;
    return Math.min(size - 1, Math.max(0, v));
  };
  for (let y = 0; y < high; y++) {
    const row = mirror(y - px, height) * width;
    for (let x = 0; x < wide; x++) {
      const from = 3 * (row + mirror(x - px, width));
      for (let c = 0; c < 3; c++) out[3 * (y * wide + x) + c] = data[from + c];
    }
  }
  return { width: wide, height: high, channels: 3, data: out };
}

/** A picture at its real size as PDF. @param raster three channels of 8 bits, sRGB, ppi pixels an inch */
export async function picturePdf(raster: Raster, ppi: number, sheet: Sheet): Promise<Uint8Array<ArrayBuffer>> {
  const { widthMm, heightMm, marginMm, bleedMm } = sheet;
  const pdf = await PDFDocument.create();
  pdf.setTitle(sheet.title);
  pdf.setProducer('Stigmos');
  pdf.setCreator('Stigmos');
  const bleedPx = Math.round((bleedMm * raster.width) / widthMm);
  const whole = withBleed(raster, bleedPx);
  const image = sheet.quality
    ? await pdf.embedJpg(encodeJpeg(whole, sheet.quality, Math.round(ppi), 'srgb'))
    : await pdf.embedPng(encodePng(whole, ppi));
  const around = marginMm + bleedMm;
  const [width, height] = [widthMm + 2 * around, heightMm + 2 * around].map((mm) => mm * POINTS);
  const page = pdf.addPage([width, height]);
  // bleed is a whole number of pixels: the picture itself keeps its size to the last digit
  const bleedPt = (bleedPx * widthMm * POINTS) / raster.width;
  const [x, y] = [around * POINTS, around * POINTS];
  page.drawImage(image, {
    x: x - bleedPt,
    y: y - bleedPt,
    width: widthMm * POINTS + 2 * bleedPt,
    height: heightMm * POINTS + 2 * bleedPt,
  });
  page.setTrimBox(x, y, widthMm * POINTS, heightMm * POINTS);
  const bleed = bleedMm * POINTS;
  page.setBleedBox(x - bleed, y - bleed, widthMm * POINTS + 2 * bleed, heightMm * POINTS + 2 * bleed);
  if (sheet.cropMarks) drawCropMarks(page, sheet);
  if (sheet.paints) await addRecipePages(pdf, sheet.paints, raster, sheet);
  return (await pdf.save()) as Uint8Array<ArrayBuffer>;
}

/** Marks at the four corners of the cut, as far as the margin has room for them. */
function drawCropMarks(page: PDFPage, { widthMm, heightMm, marginMm, bleedMm }: Sheet): void {
  const around = marginMm + bleedMm;
  const from = bleedMm + AWAY;
  const to = Math.min(around, from + MARK);
  if (to <= from) return;
  const line = (x0: number, y0: number, x1: number, y1: number) =>
    page.drawLine({
      start: { x: x0 * POINTS, y: y0 * POINTS },
      end: { x: x1 * POINTS, y: y1 * POINTS },
      thickness: 0.25,
      color: rgb(0, 0, 0),
    });
  for (const [x, outX] of [
    [around, -1],
    [around + widthMm, 1],
  ]) {
    for (const [y, outY] of [
      [around, -1],
      [around + heightMm, 1],
    ]) {
      line(x + outX * from, y, x + outX * to, y);
      line(x, y + outY * from, x, y + outY * to);
    }
  }
}
