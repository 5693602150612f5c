import { aidOf, type Aid } from '@/core/picture/aids/aids';
import { OPEN_EYES, type Looking } from '@/core/picture/aids/definition';
import { showsAnyPicture, throughAid } from '@/core/picture/aids/throughAid';
import { section } from '@/core/picture/coreSample';
import { thicknessSmall, unlitSmall, type Crop } from '@/core/picture/unlit';
import { leadingLines } from '@/core/study/looking/directions';
import { findEdges } from '@/core/study/looking/edges';
import { differenceMap, massDifferenceMap } from '@/core/study/looking/differences';
import { pullOf } from '@/core/study/looking/pull';
import { massed, studyOf } from '@/core/study/looking/studyOf';
import type { GlassPicture } from './questions';
import { filmHistories } from '@/core/journal/toldCore';
import { digest } from '@/core/journal/digest';
import type { Painting } from '@/core/film/painting';
import type { Studio } from '@/core/journal/studio';
import { PainterError } from '@/core/errors';
import { EXPORTS } from '@/core/formats/exports/exports';
import { GivenUp } from '@/core/formats/step';
import { copyPiece } from '@/core/commands/families/pasting';
import { histogramOf, paintedOutlines, pieceOf, selectionOutlines } from '@/core/picture/piece';
import type { Picture } from '@/core/picture/picture';
import { readAround } from '@/core/picture/readings';
import { PLAIN_VIEW } from '@/core/picture/viewOptions';
import { blameFor } from '@/core/picture/ageingBlame';
import { retubeProof, tubesUsed } from '@/core/picture/tubesUsed';
import { paperAt } from '@/core/picture/layers/washFilm';
import type { Keeping } from '@/engine/keeping/keeping';
import type { OpenPainting } from './openPainting';
import type { About, Answers, NoAnswer, Question, Reply } from './questions';
import { encodeWebp } from '@/engine/files/webp';
import { paintingFile } from '@/engine/files/paintingFile';
import { readPainting } from '@/engine/keeping/shelf';

/** What is asked about. */
interface Asked {
  readonly studio: Studio;
  readonly keeping: Keeping;
  readonly picture: Picture;
  /** What is on the screen, and of the slab. */
  readonly slab: Picture;
  /** Lends the picture of the painting as it is, whatever is looked at. */
  readonly plainly: <T>(render: (picture: Picture) => T) => T;
  readonly thumbnail: () => Uint8Array<ArrayBuffer>;
  readonly glass: (width: number, how: Looking) => GlassPicture[];
  /** The whole picture, so wide, through one aid. */
  readonly small: (width: number, aid: Aid, how: Looking, height: number, crop?: Crop) => GlassPicture;
  /** Writes down the time that has passed on wet paper, so that the journal tells the state as it is now. */
  readonly endWait: () => void;
  /** Tells who asked how far the answer is, 0..1. */
  readonly tell: (share: number) => void;
}

/** How each question is answered. */
type Answerers = {
  readonly [K in About]: (question: Question<K>, asked: Asked) => Answers[K] | Promise<Answers[K]>;
};

/** Cell of a place, mm; undefined beside the painting. */
function cellAt({ mmPerPx, width, height }: Painting, place: { x: number; y: number }) {
  const [x, y] = [Math.floor(place.x / mmPerPx), Math.floor(place.y / mmPerPx)];
  return x < 0 || y < 0 || x >= width || y >= height ? undefined : { x, y };
}

const ANSWERERS: Answerers = {
  spot({ on, radiusMm = 0, layer, ...place }, { studio, slab, picture }) {
    const of = on ? studio.slab : studio.painting;
    const cell = cellAt(of, place);
    return cell ? readAround(on ? slab : picture, cell.x, cell.y, radiusMm / of.mmPerPx, layer) : null;
  },

  paper(place, { studio: { painting } }) {
    const cell = cellAt(painting, place);
    return cell ? paperAt(painting, painting.active, cell.x, cell.y) : { filmUm: 0, damp: 0 };
  },

  outlines({ layer: id }, { studio: { painting } }) {
    if (id === undefined) return selectionOutlines(painting);
    const layer = painting.layer(id);
    return layer ? paintedOutlines(painting, layer) : [];
  },

  glass: ({ width, how }, { glass }) => glass(width, how),

  glance({ most }, { small, studio: { painting } }) {
    const scale = Math.min(1, most / Math.max(painting.width, painting.height));
    const [width, height] = [painting.width, painting.height].map((side) => Math.max(1, Math.round(side * scale)));
    return small(width, 'none', OPEN_EYES, height);
  },

  study({ width, height, aid: id, how, net, photo: codes, pull, crop, byMass }, { small, studio: { painting } }) {
    const canvas = unlitSmall(painting, width, height, crop);
    const photo = codes && { ...canvas, codes };
    const study = studyOf(canvas, photo, how.masses, net);
    const aid = aidOf(id);
    const bytes = (of: Uint32Array) => new Uint8ClampedArray(Uint32Array.from(of).buffer);
    const soft = photo && byMass ? massed(photo) : undefined;
    return {
      width,
      height,
      canvas:
        aid && !showsAnyPicture(aid) ? small(width, id, how, height, crop).rgba : bytes(throughAid(canvas, aid, how)),
      photo: photo && bytes(throughAid(photo, aid, how)),
      map:
        photo &&
        bytes(
          soft
            ? massDifferenceMap(canvas, study.byMass, soft, study.photo!.masses)
            : differenceMap(canvas, study.differences, ...net),
        ),
      study,
      pull: pull ? pullOf(canvas, thicknessSmall(painting, width, height, crop)) : undefined,
      leading: pull ? leadingLines(findEdges(canvas), width, height, canvas.mmPerPx) : undefined,
    };
  },

  section({ from, to, count }, { picture, studio }) {
    const cores = section(picture, from, to, count);
    return { cores, told: count === 1 && cores.length === 1 ? filmHistories(cores[0], studio) : [] };
  },

  copy: (_, { studio: { painting } }) => copyPiece(painting),

  piece({ layers, most }, { studio: { painting } }) {
    const there = layers.flatMap((id) => painting.layer(id) ?? []);
    const piece = pieceOf(painting, there, most);
    if (!piece) return null;
    const mm = (v: number) => v * painting.mmPerPx;
    const { left, top, right, bottom } = piece.rect;
    return { ...piece, box: { left: mm(left), top: mm(top), right: mm(right), bottom: mm(bottom) } };
  },

  histogram: ({ below }, { studio: { painting } }) =>
    histogramOf(painting, below ? { ...PLAIN_VIEW, without: [below] } : PLAIN_VIEW),

  tubes: (_, { picture }) => tubesUsed(picture),

  proof: ({ width, change }, { picture }) => retubeProof(picture, width, change),

  blame: ({ ageing }, { picture }) => blameFor(picture, ageing),

  export({ as, title, settings, givenUp }, { studio, keeping, plainly, thumbnail, endWait, tell }) {
    const step = (share: number) => {
      if (givenUp && Atomics.load(givenUp, 0) !== 0) throw new GivenUp();
      tell(share);
    };
    return EXPORTS[as].make(
      {
        plainly,
        ppi: studio.painting.spec.ppi,
        title,
        studio,
        step,
        paintingFile: async (strokesAlone, stepOf) =>
          paintingFile(studio, keeping, title, await readPainting(keeping.id), thumbnail(), {
            ready: endWait,
            strokesAlone,
            step: stepOf,
          }),
        webp: encodeWebp,
      },
      settings,
    );
  },

  journal(_, { studio, keeping, endWait }) {
    if (keeping.missing > 0) throw new PainterError('A part of its journal is missing: it cannot be played.');
    endWait();
    return { begun: studio.begun, history: studio.history };
  },

  state(_, { studio, endWait }) {
    endWait();
    return { digest: digest(studio), mass: studio.massBalance() };
  },

  async kept(_, { keeping }): Promise<true> {
    await keeping.stored();
    return true;
  },

  async rest(_, { keeping }): Promise<true> {
    await keeping.stored();
    return true;
  },
};

/** An answer, typed by what is asked. @throws PainterError when there is none */
async function answerTo<K extends About>(id: number, question: Question<K>, asked: Asked): Promise<Reply<K>> {
  const answerer: Answerers[K] = ANSWERERS[question.of];
  return { say: 'answer', id, of: question.of, answer: await answerer(question, asked) };
}

/**
 * What the page is told on a question. For a file everything is coloured.
 * @param open the painting, once it is there, @param tell tells how far the answer is, 0..1
 */
export async function replyTo(
  id: number,
  question: Question,
  open: OpenPainting | undefined,
  tell: (share: number) => void,
): Promise<Reply | NoAnswer> {
  try {
    if (!open) throw new PainterError('The painting is still being opened.');
    const { studio, screen, autosave } = open;
    if (question.of === 'export') screen.colourAll();
    return await answerTo(id, question, {
      studio,
      keeping: autosave.keeping,
      picture: screen.picture,
      slab: screen.slab.picture,
      plainly: (render) => screen.plainly(render),
      thumbnail: () => screen.thumbnail(),
      glass: (width, how) => screen.glass(width, how),
      small: (width, aid, how, height) => screen.small(width, aid, how, height),
      endWait: () => open.endWait(),
      tell,
    });
  } catch (error) {
    return { say: 'no-answer', id, why: error instanceof Error ? error.message : String(error) };
  }
}
