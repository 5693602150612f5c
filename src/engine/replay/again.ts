import { needSize } from '@/core/commands/memoryBudget';
import { encodePng } from '@/core/formats/png';
import { Player } from '@/core/journal/playing/player';
import { paintedAt } from '@/core/journal/replay';
import { MovingPicture } from '@/core/picture/movingPicture';
import type { View } from '@/core/picture/view';
import type { Light } from '@/core/picture/picture';
import type { Making } from './making';
import type { FromReplay } from './replayMessages';

/** Commands after which it is said how far it is, and a slice of painting, ms. */
const TELL_EVERY = 8;
const TURN_MS = 14;
/** Side of the piece that is compared at 1:1, pixels. */
const PIECE = 380;

/**
 * Paints a painting again in more cells: the same strokes, finer. Of its middle a piece is shown as it is, and as it is
 * now seen from as near.
 * @returns undefined where it was given up
 * @throws PainterError where it would be too large
 */
export async function paintAgain(
  { player: { studio: small, history }, picture: before, heard, isCancelled, reach, tell }: Making,
  light: Light,
  scale: number,
): Promise<FromReplay | undefined> {
  const begun = paintedAt(small.begun, scale);
  needSize({ ...begun, widthMm: small.spec.widthMm, heightMm: small.spec.heightMm });
  const player = new Player(begun, history, { keepEvery: Infinity });
  const { studio } = player;
  const picture = new MovingPicture(() => studio.painting, light);
  try {
    for (let turn = 0; !player.go(player.end, TURN_MS, (rect, canvas) => picture.changed(rect, canvas)); turn++) {
      if (turn % TELL_EVERY === 0) tell(player.place.done, history.length);
      await heard();
      if (isCancelled()) return undefined;
    }
    picture.update();
    await heard();
    const { width, height } = picture.size;
    const piece = { left: 0, top: 0, right: Math.min(PIECE, width), bottom: Math.min(PIECE, height) };
    const view = (of: { width: number; height: number }, zoom: number): View => {
      const [centreX, centreY] = [Math.floor(of.width / 2), Math.floor(of.height / 2)];
      return { width: piece.right, height: piece.bottom, centreX, centreY, zoom, turn: 0, mirror: false };
    };
    const fine = picture.draw(view(picture.size, 1), piece);
    const png = encodePng(picture.raster(), studio.painting.spec.ppi);
    if (!(await reach(player.end))) return undefined;
    const coarse = before.draw(view(before.size, scale), piece);
    const compared = { width: piece.right, height: piece.bottom, coarse, fine };
    return { say: 'again', png, width, height, ppi: studio.painting.spec.ppi, compared };
  } finally {
    picture.dispose();
    player.dispose();
  }
}
