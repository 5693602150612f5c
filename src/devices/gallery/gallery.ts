/** A gallery wall that is not there: it hangs what is sent to it. */
import sharp from 'sharp';
import { PainterError } from '@/core/errors';
import type { Mood } from '@/devices/mood';
import type { Hanging, Piece } from './piece';

/** Largest picture, pixels along a side; most that hang at a time. */
const MOST_PX = 6000;
const MOST_PIECES = 24;

interface Hung {
  readonly piece: Piece;
  readonly jpeg: Uint8Array<ArrayBuffer>;
}

export class Gallery {
  mood: Mood = 'open';
  private readonly wall = new Map<string, Hung>();

  /**
   * Hangs a picture: what is sent again under the same id hangs once.
   * @throws PainterError with a sentence where it is no picture for a wall
   */
  async hang(bytes: Uint8Array<ArrayBuffer>, { id, title, caption }: Hanging): Promise<Piece> {
    const known = this.wall.get(id);
    if (known) return known.piece;
    const { format, width, height } = await sharp(bytes)
      .metadata()
      .catch(() => ({ format: undefined, width: 0, height: 0 }));
    if (format !== 'jpeg') throw new PainterError('Only JPEG pictures are hung here.');
    if (Math.max(width, height) > MOST_PX)
      throw new PainterError(`It is ${width} x ${height} pixels: at most ${MOST_PX} along a side are hung here.`);
    // a picture that is cut off can say its size still
    await sharp(bytes, { failOn: 'truncated' })
      .stats()
      .catch(() => {
        throw new PainterError('This picture is damaged.');
      });
    const piece = { id, title, caption, width, height };
    this.wall.set(id, { piece, jpeg: bytes });
    for (const [oldest] of this.wall) if (this.wall.size > MOST_PIECES) this.wall.delete(oldest);
    return piece;
  }

  get pieces(): Piece[] {
    return [...this.wall.values()].reverse().map(({ piece }) => piece);
  }

  picture(id: string): Uint8Array<ArrayBuffer> | undefined {
    return this.wall.get(id)?.jpeg;
  }

  takeDown(id: string): void {
    this.wall.delete(id);
  }
}
