import { digest } from '@/core/journal/digest';
import type { Studio } from '@/core/journal/studio';
import { encodePng } from '@/core/formats/png';
import { pictureRaster } from '@/core/formats/planes';
import { histogramOf, paintedOutlines, pieceOf, selectionOutlines } from '@/core/picture/piece';
import type { Picture } from '@/core/picture/picture';
import { readAround } from '@/core/picture/readings';
import { PLAIN_VIEW } from '@/core/picture/viewOptions';
import { retubeProof, tubesUsed } from '@/core/picture/tubesUsed';
import { paperAt } from '@/core/picture/washFilm';
import type { Keeping } from './keeping';
import type { Question } from './protocol';
import { paintingFile } from './paintingFile';
import { readPainting } from './shelf';

/** What is asked about. */
interface Asked {
  readonly studio: Studio;
  readonly keeping: Keeping;
  readonly picture: Picture;
  /** The picture of the slab. */
  readonly slab: Picture;
  /** Lends the picture of the painting as it is, whatever is looked at. */
  readonly plainly: <T>(render: (picture: Picture) => T) => T;
  readonly thumbnail: () => Uint8Array<ArrayBuffer>;
  /** Writes down the time that has passed on wet paper, so that the journal tells the state as it is now. */
  readonly endWait: () => void;
}

/** Answers a question of the page. For a PNG everything is coloured. */
export async function answerTo(
  question: Question,
  { studio, keeping, picture, slab, plainly, thumbnail, endWait }: Asked,
): Promise<unknown> {
  const { painting } = studio;
  switch (question.of) {
    case 'spot': {
      const of = question.on ? studio.slab : painting;
      const x = Math.floor(question.x / of.mmPerPx);
      const y = Math.floor(question.y / of.mmPerPx);
      if (x < 0 || y < 0 || x >= of.width || y >= of.height) return null;
      return readAround(question.on ? slab : picture, x, y, (question.radiusMm ?? 0) / of.mmPerPx, question.layer);
    }
    case 'paper': {
      const x = Math.floor(question.x / painting.mmPerPx);
      const y = Math.floor(question.y / painting.mmPerPx);
      if (x < 0 || y < 0 || x >= painting.width || y >= painting.height) return { filmUm: 0, damp: 0 };
      return paperAt(painting, painting.active, x, y);
    }
    case 'outlines': {
      const layer = question.layer === undefined ? undefined : painting.layer(question.layer);
      return layer ? paintedOutlines(painting, layer) : question.layer ? [] : selectionOutlines(painting);
    }
    case 'piece': {
      const layers = question.layers.flatMap((id) => painting.layer(id) ?? []);
      const piece = pieceOf(painting, layers, question.most);
      if (!piece) return null;
      const mm = (v: number) => v * painting.mmPerPx;
      const { left, top, right, bottom } = piece.rect;
      return { ...piece, box: { left: mm(left), top: mm(top), right: mm(right), bottom: mm(bottom) } };
    }
    case 'histogram':
      return histogramOf(painting, question.below ? { ...PLAIN_VIEW, without: [question.below] } : PLAIN_VIEW);
    case 'tubes':
      return tubesUsed(picture);
    case 'proof':
      return retubeProof(picture, question.width, question.change);
    case 'png':
      return plainly((plain) => encodePng(pictureRaster(plain, question.lit), painting.spec.ppi));
    case 'file': {
      const record = await readPainting(keeping.id);
      return paintingFile(studio, keeping, question.title, record, thumbnail(), endWait);
    }
    case 'state':
      endWait();
      return { digest: digest(studio), mass: studio.massBalance() };
    case 'kept':
      await keeping.stored();
      return true;
  }
}
