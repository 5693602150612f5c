import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';

/**
 * Size of a piece, pixels of the view: so small that a hand that comes down meanwhile hardly waits; and of a large one,
 * for while it rests: an aid looks around each piece, so that many small ones take longer than a few.
 */
const SMALL = { wide: 160, high: 96 } as const;
const LARGE = { wide: 800, high: 192 } as const;

/** Parts of the view that are drawn later, piece by piece, from above. */
export class LaterPieces {
  private all = noRect();
  private at = { x: 0, y: 0 };
  /** Height of the row that is drawn. */
  private high: number = SMALL.high;

  get isEmpty(): boolean {
    return isEmpty(this.all);
  }

  /** More is to be drawn: all of it is begun anew. */
  add(rect: PixelRect): void {
    growRect(this.all, rect);
    this.at = { x: this.all.left, y: this.all.top };
  }

  forget(): void {
    this.all = noRect();
  }

  next(large = false): PixelRect | undefined {
    const { wide, high } = large ? LARGE : SMALL;
    if (this.isEmpty) return undefined;
    const { left, right, bottom } = this.all;
    const { x, y } = this.at;
    // a row is finished in the height that it was begun with
    if (x === left) this.high = high;
    const piece = { left: x, top: y, right: Math.min(right, x + wide), bottom: Math.min(bottom, y + this.high) };
    if (piece.right < right) this.at = { x: piece.right, y };
    else if (piece.bottom < bottom) this.at = { x: left, y: piece.bottom };
    else this.all = noRect();
    return piece;
  }
}
