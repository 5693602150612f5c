import { PDFDocument, rgb, StandardFonts } from 'pdf-lib';
import { linesOf, POINTS, sayable } from './pdfText';

/** A picture of a stage, and what is said under it. */
export interface StagePage {
  readonly png: Uint8Array;
  readonly width: number;
  readonly height: number;
  readonly words: string;
  readonly below: string;
}

/** ISO 216 A4, and the room around what is on it, points. */
const [SHORT, LONG] = [210 * POINTS, 297 * POINTS];
const MARGIN = 15 * POINTS;
const WORDS = 18 * POINTS;

/** Pages of how a picture was made, one a stage: upright or lying as the picture is. */
export async function stagesPdf(title: string, pages: readonly StagePage[]): Promise<Uint8Array<ArrayBuffer>> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(`${title}: how it was made`);
  pdf.setProducer('Stigmos');
  const [plain, bold] = [
    await pdf.embedFont(StandardFonts.Helvetica),
    await pdf.embedFont(StandardFonts.HelveticaBold),
  ];
  for (const { png, width, height, words, below } of pages) {
    const size: [number, number] = width > height ? [LONG, SHORT] : [SHORT, LONG];
    const page = pdf.addPage(size);
    const [wide, high] = [size[0] - 2 * MARGIN, size[1] - 2 * MARGIN - WORDS];
    const scale = Math.min(wide / width, high / height);
    const [x, y] = [MARGIN + (wide - width * scale) / 2, size[1] - MARGIN - height * scale];
    page.drawImage(await pdf.embedPng(png), { x, y, width: width * scale, height: height * scale });
    const [line] = linesOf(bold, words, 13, wide);
    page.drawText(line, { x, y: y - 22, size: 13, font: bold, color: rgb(0.16, 0.15, 0.14) });
    page.drawText(sayable(plain, below), { x, y: y - 38, size: 9.5, font: plain, color: rgb(0.4, 0.38, 0.35) });
  }
  return (await pdf.save()) as Uint8Array<ArrayBuffer>;
}
