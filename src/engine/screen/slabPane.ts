import type { Painting } from '@/core/film/painting';
import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { Picture, type Light } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { drawView, rectInView, type View } from '@/core/picture/view';
import type { FromWorker } from '@/engine/protocol';

/** The slab as the page sees it: whole, upright, as large as the page has room for. */
export class SlabPane {
  readonly picture: Picture;
  private readonly pyramid: Pyramid;
  private view: View | undefined;
  private dirty = noRect();
  private waiting = false;

  constructor(private readonly slab: Painting) {
    this.picture = new Picture(slab);
    this.pyramid = new Pyramid(this.picture);
    this.changed(this.whole);
  }

  /** Colours cells that changed. */
  changed(rect: PixelRect): void {
    if (isEmpty(rect)) return;
    const lit = this.picture.update(rect);
    this.pyramid.update(lit);
    if (this.view) growRect(this.dirty, rectInView(this.view, lit));
  }

  /** The page has so many device pixels for it. */
  look(width: number, height: number): void {
    const { slab } = this;
    const zoom = Math.min(width / slab.width, height / slab.height);
    const centre = { centreX: slab.width / 2, centreY: slab.height / 2 };
    this.view = { width, height, ...centre, zoom, turn: 0, mirror: false };
    this.dirty = { left: 0, top: 0, right: width, bottom: height };
  }

  light(light: Light): void {
    this.picture.light = light;
    this.changed(this.whole);
  }

  /** What is to be shown, when the page has shown what came before. */
  frame(): Extract<FromWorker, { say: 'slab-pixels' }> | undefined {
    if (!this.view || this.waiting || isEmpty(this.dirty)) return undefined;
    const { left, top, right, bottom } = this.dirty;
    const data = drawView(this.pyramid, this.slab.arena.u32, this.view, this.dirty);
    this.dirty = noRect();
    this.waiting = true;
    const { width, height } = this.view;
    return {
      say: 'slab-pixels',
      x: left,
      y: top,
      width: right - left,
      height: bottom - top,
      data,
      of: [width, height],
    };
  }

  shown(): void {
    this.waiting = false;
  }

  private get whole(): PixelRect {
    return { left: 0, top: 0, right: this.slab.width, bottom: this.slab.height };
  }
}
