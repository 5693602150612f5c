import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';

/** Size of a piece, pixels of the view: so small that a hand that comes down meanwhile hardly waits. */
const WIDE = 160;
const HIGH = 96;

/** Parts of the view that are drawn later, piece by piece, from above. */
export class LaterPieces {
  private all = noRect();
  private at = { x: 0, y: 0 };

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

  next(): PixelRect | undefined {
    if (this.isEmpty) return undefined;
    const { left, right, bottom } = this.all;
    const { x, y } = this.at;
    const piece = { left: x, top: y, right: Math.min(right, x + WIDE), bottom: Math.min(bottom, y + HIGH) };
    if (piece.right < right) this.at = { x: piece.right, y };
    else if (piece.bottom < bottom) this.at = { x: left, y: piece.bottom };
    else this.all = noRect();
    return piece;
  }
}
