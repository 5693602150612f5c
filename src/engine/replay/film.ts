import { captionAt } from '@/core/journal/playing/captions';
import { PlayTimes } from '@/core/journal/playing/playTimes';
import { Told } from '@/core/journal/playing/stages';
import { PainterError } from '@/core/errors';
import { drawFrame, drawTitle } from './filmFrame';
import { FILM_SIZES, FRAMES_A_SECOND, type FilmWanted } from './filmSettings';
import type { FromReplay } from './replayMessages';
import type { Making } from './making';

/** How long the title is shown, and the finished picture, s; each at most a fifth of all. */
const TITLE_S = 1.8;
const STILL_S = 2;
/** Bits for each pixel of a frame: paint has much grain. */
const BITS_A_PIXEL = 0.16;

/** How many frames of a film are its title, and its last still. */
export function framesOf({ seconds, titled }: Pick<FilmWanted, 'seconds' | 'titled'>) {
  const all = Math.round(seconds * FRAMES_A_SECOND);
  const title = titled ? Math.round(Math.min(TITLE_S, seconds / 5) * FRAMES_A_SECOND) : 0;
  const still = Math.round(Math.min(STILL_S, seconds / 5) * FRAMES_A_SECOND);
  return { all, title, still, played: all - title - still };
}

/**
 * Makes a film of how a painting was made: WebM, in the first of VP9, AV1 and VP8 that the browser encodes.
 * @returns undefined where it was given up
 * @throws PainterError where the browser encodes no film
 */
export async function makeFilm(making: Making, wanted: FilmWanted): Promise<FromReplay | undefined> {
  const { player, picture, reach, heard, isCancelled, tell } = making;
  if (typeof OffscreenCanvas === 'undefined' || typeof VideoEncoder === 'undefined') {
    throw new PainterError('This browser makes no films. Its pictures stage by stage can be had.');
  }
  const { BufferTarget, CanvasSource, getFirstEncodableVideoCodec, Output, WebMOutputFormat } =
    await import('mediabunny');
  const [width, height] = FILM_SIZES[wanted.size];
  const bitrate = Math.round(width * height * FRAMES_A_SECOND * BITS_A_PIXEL);
  const codec = await getFirstEncodableVideoCodec(['vp9', 'av1', 'vp8'], { width, height, bitrate });
  if (!codec) throw new PainterError('This browser makes no films. Its pictures stage by stage can be had.');
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { alpha: false });
  if (!context) throw new PainterError('This browser could not draw the film.');
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new CanvasSource(canvas, { codec, bitrate, keyFrameInterval: 2, latencyMode: 'realtime' });
  output.addVideoTrack(source, { frameRate: FRAMES_A_SECOND });
  output.setMetadataTags({ title: wanted.title });
  await output.start();

  const told = new Told(player.history);
  const { all, title, played } = framesOf(wanted);
  const times = new PlayTimes(player.history, { by: wanted.by, seconds: played / FRAMES_A_SECOND });
  const layerName = (id: string) => player.studio.layer(id)?.name ?? '';
  for (let i = 0; i < all; i++) {
    tell(i, all);
    // the last of those that are played shows all of it already
    const place = i < title ? undefined : times.placeAt((i + 1 - title) / FRAMES_A_SECOND);
    if (place) await reach(place);
    else await heard();
    if (isCancelled()) {
      await output.cancel();
      return undefined;
    }
    if (place) {
      const { done } = player.place;
      drawFrame(context, { player, picture, told }, wanted, captionAt(told, done, wanted.words, layerName));
    } else if (i === 0) drawTitle(context, wanted.title, `${told.count} strokes`);
    await source.add(i / FRAMES_A_SECOND, 1 / FRAMES_A_SECOND);
  }
  await output.finalize();
  if (!target.buffer) throw new PainterError('The browser could not finish the film.');
  return { say: 'film', bytes: new Uint8Array(target.buffer), frames: all, seconds: all / FRAMES_A_SECOND };
}
