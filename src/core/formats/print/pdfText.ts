import { type PDFFont } from 'pdf-lib';

/** Millimetres in points. */
export const POINTS = 72 / 25.4;

/** What of a text a font of the standard fourteen can say: other signs become a question mark. */
export function sayable(font: PDFFont, text: string): string {
  return [...text.normalize('NFC')]
    .map((sign) => {
      try {
        font.encodeText(sign);
        return sign;
      } catch {
        return '?';
      }
    })
    .join('');
}

/** Breaks a text into lines no wider than `width` points. */
export function linesOf(font: PDFFont, text: string, size: number, width: number): string[] {
  const lines: string[] = [];
  for (const word of sayable(font, text).split(/\s+/)) {
    const longer = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (lines.length > 0 && font.widthOfTextAtSize(longer, size) <= width) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}
