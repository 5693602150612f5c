import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib';
import { recipeWords } from '@/core/colour/recipeWords';
import { pigmentName } from '@/core/colour/pigments';
import { linesOf, POINTS, sayable } from '@/core/formats/print/pdfText';
import { encodePng, type Raster } from '@/core/formats/png';
import { smaller } from '@/core/formats/pictures/smaller';
import type { RecipeBook, RecipeUsed } from './recipeBook';

/** ISO 216 A4, and the room around what is written on it, points. */
const PAGE = [210 * POINTS, 297 * POINTS] as const;
const MARGIN = 18 * POINTS;
const ROW = 13;
const INK = rgb(0.16, 0.15, 0.14);
const QUIET = rgb(0.45, 0.43, 0.4);
/** Longest side of the small picture, pixels and points. */
const SMALL_PX = 1200;
const SMALL = 300;

interface Named {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
}

const paint = (hex: string) =>
  rgb(...([1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255) as [number, number, number]));

/** Pages on which one line is written under the other; a new one is begun where there is no room. */
class Pages {
  page!: PDFPage;
  y = 0;

  constructor(
    private readonly pdf: PDFDocument,
    readonly plain: PDFFont,
    readonly bold: PDFFont,
  ) {
    this.next();
  }

  next(): void {
    this.page = this.pdf.addPage([...PAGE]);
    this.y = PAGE[1] - MARGIN;
  }

  /** Makes sure that there is room for so many points. */
  need(points: number): void {
    if (this.y - points < MARGIN) this.next();
  }

  say(text: string, x: number, { size = 9.5, bold = false, quiet = false } = {}): void {
    const font = bold ? this.bold : this.plain;
    this.page.drawText(sayable(font, text), { x, y: this.y, size, font, color: quiet ? QUIET : INK });
  }

  swatch(hex: string, x: number, side: number): void {
    this.page.drawRectangle({
      x,
      y: this.y - 2,
      width: side,
      height: side,
      color: paint(hex),
      borderColor: QUIET,
      borderWidth: 0.25,
    });
  }
}

/** Writes a recipe book into a document. @param raster the picture, three channels of 8 bits */
export async function addRecipePages(pdf: PDFDocument, book: RecipeBook, raster: Raster, named: Named): Promise<void> {
  const pages = new Pages(
    pdf,
    await pdf.embedFont(StandardFonts.Helvetica),
    await pdf.embedFont(StandardFonts.HelveticaBold),
  );
  const { widthMm, heightMm, title } = named;
  pages.y -= 8;
  pages.say(title, MARGIN, { size: 18, bold: true });
  pages.y -= 18;
  pages.say(`${widthMm.toFixed(0)} x ${heightMm.toFixed(0)} mm. What it takes to paint it again.`, MARGIN, {
    quiet: true,
  });
  pages.y -= 14;
  await drawPlaces(pdf, pages, book.recipes, raster, named);
  pages.say('Tubes', MARGIN, { size: 12, bold: true });
  pages.y -= ROW + 4;
  for (const { id, ml, needed, tubes } of book.tubes) {
    pages.need(ROW);
    pages.say(linesOf(pages.plain, `${id}  ${pigmentName(id)}`, 9.5, 220)[0], MARGIN);
    pages.say(`${ml.toFixed(1)} ml on the canvas, ${needed.toFixed(1)} ml needed`, MARGIN + 230);
    pages.say(`tubes of ${tubes.join(' + ')} ml`, MARGIN + 400, { quiet: true });
    pages.y -= ROW;
  }
  pages.y -= ROW;
  pages.need(5 * ROW);
  pages.say('Mixtures, in the order in which they were first used', MARGIN, { size: 12, bold: true });
  pages.y -= ROW + 6;
  let layer: string | undefined;
  book.recipes.forEach((recipe, i) => {
    if (recipe.layer && recipe.layer !== layer) {
      layer = recipe.layer;
      pages.need(3 * ROW);
      pages.say(layer, MARGIN, { bold: true });
      pages.y -= ROW + 3;
    }
    writeRecipe(pages, recipe, i + 1);
  });
  if (book.blended > 0) {
    pages.need(ROW);
    pages.say(`${(100 * book.blended).toFixed(0)} % of the picture is paint worked into paint on the canvas.`, MARGIN, {
      quiet: true,
    });
  }
}

function writeRecipe(pages: Pages, { mixture, hex, share, place, firstStroke }: RecipeUsed, number: number): void {
  const width = PAGE[0] - 2 * MARGIN - 44;
  const parts = Object.entries(mixture)
    .sort(([, p], [, q]) => q - p)
    .map(([id, part]) => `${id} ${(100 * part).toFixed(1)} %`)
    .join(', ');
  const words = linesOf(pages.plain, recipeWords(mixture), 9.5, width);
  pages.need((words.length + 1) * ROW + 6);
  pages.say(`${number}`, MARGIN, { bold: true });
  pages.swatch(hex, MARGIN + 20, 14);
  for (const line of words) {
    pages.say(line, MARGIN + 44);
    pages.y -= ROW;
  }
  const first = firstStroke === undefined ? '' : `, from stroke ${firstStroke}`;
  const where = `${(100 * share).toFixed(1)} % of the picture, at ${place.x.toFixed(0)}, ${place.y.toFixed(0)} mm${first}`;
  for (const line of linesOf(pages.plain, `${parts}. ${where}`, 8, width)) {
    pages.say(line, MARGIN + 44, { size: 8, quiet: true });
    pages.y -= ROW - 2;
  }
  pages.y -= 5;
}

/** The picture, small, with the number of each recipe at its place. */
async function drawPlaces(
  pdf: PDFDocument,
  pages: Pages,
  recipes: readonly RecipeUsed[],
  raster: Raster,
  { widthMm, heightMm }: Named,
): Promise<void> {
  const image = await pdf.embedPng(encodePng(smaller(raster, SMALL_PX, true), 72));
  const scale = SMALL / Math.max(widthMm, heightMm);
  const [width, height] = [widthMm * scale, heightMm * scale];
  pages.y -= height;
  pages.page.drawImage(image, { x: MARGIN, y: pages.y, width, height });
  recipes.forEach(({ place }, i) => {
    const [x, y] = [MARGIN + place.x * scale, pages.y + height - place.y * scale];
    pages.page.drawCircle({ x, y, size: 6.5, color: rgb(1, 1, 1), borderColor: INK, borderWidth: 0.5, opacity: 0.9 });
    const text = `${i + 1}`;
    const wide = pages.bold.widthOfTextAtSize(text, 7);
    pages.page.drawText(text, { x: x - wide / 2, y: y - 2.5, size: 7, font: pages.bold, color: INK });
  });
  pages.y -= 24;
}

/** A recipe book as a document of its own. */
export async function recipePdf(book: RecipeBook, raster: Raster, named: Named): Promise<Uint8Array<ArrayBuffer>> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(`${named.title}: recipe book`);
  pdf.setProducer('Stigmos');
  await addRecipePages(pdf, book, raster, named);
  return (await pdf.save()) as Uint8Array<ArrayBuffer>;
}
