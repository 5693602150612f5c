import type { PixelRect } from '@/core/film/pixelRect';
import { cellToView, type View } from '@/core/picture/view';

/** Side of the blocks in which a picture is coloured bit by bit, cells. */
const BLOCK = 128;

/** What of a picture is not coloured yet, as blocks; what lies in the middle of the view comes first. */
export class Uncoloured {
  /** The next one last. */
  private blocks: PixelRect[] = [];
  private view: View | undefined;

  /** @param width, height of the picture, cells */
  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {}

  get length(): number {
    return this.blocks.length;
  }

  /** Adds every block that a rectangle touches. */
  add(rect: PixelRect): void {
    const right = Math.min(this.width, rect.right);
    const bottom = Math.min(this.height, rect.bottom);
    const known = new Map(this.blocks.map((b) => [`${b.left},${b.top}`, b]));
    for (let top = Math.floor(Math.max(0, rect.top) / BLOCK) * BLOCK; top < bottom; top += BLOCK) {
      for (let left = Math.floor(Math.max(0, rect.left) / BLOCK) * BLOCK; left < right; left += BLOCK) {
        const block = {
          left,
          top,
          right: Math.min(this.width, left + BLOCK),
          bottom: Math.min(this.height, top + BLOCK),
        };
        known.set(`${left},${top}`, block);
      }
    }
    this.blocks = [...known.values()];
    this.sort();
  }

  /** From now on this is looked at. */
  look(view: View | undefined): void {
    this.view = view;
    this.sort();
  }

  /** The block that is to be coloured next. */
  next(): PixelRect | undefined {
    return this.blocks.pop();
  }

  private sort(): void {
    const { view } = this;
    if (!view || this.blocks.length === 0) return;
    const far = (b: PixelRect) => {
      const at = cellToView(view, (b.left + b.right) / 2, (b.top + b.bottom) / 2);
      return Math.hypot(at.x - view.width / 2, at.y - view.height / 2);
    };
    this.blocks.sort((a, b) => far(b) - far(a));
  }
}
