import type { Painting } from '@/core/film/painting';
import { clipRect, growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import { tileRect, wholeRect } from '@/core/film/tilesIn';
import { TILE } from '@/core/film/tile';
import { Picture, type Light } from './picture';
import { Pyramid } from './pyramid';
import { drawView, type View } from './view';

/**
 * The picture of a painting that is played: what has changed is noted tile by tile, and coloured only when the picture is
 * wanted. Until then the picture is the one from before.
 */
export class MovingPicture {
  private picture: Picture;
  private pyramid: Pyramid;
  private readonly changedTiles = new Set<number>();
  private anotherCanvas = false;

  /** @param painting the one that is on the easel now */
  constructor(
    private readonly painting: () => Painting,
    private readonly light: Light,
  ) {
    [this.picture, this.pyramid] = this.layOut();
  }

  private layOut(): [Picture, Pyramid] {
    const picture = new Picture(this.painting());
    picture.light = this.light;
    this.anotherCanvas = false;
    this.changed(wholeRect(picture.painting));
    return [picture, new Pyramid(picture)];
  }

  /** Size of what is in the picture, cells. */
  get size(): { readonly width: number; readonly height: number } {
    const { width, height } = this.picture.painting;
    return { width, height };
  }

  /** Notes that paint has changed. @param canvas whether it lies on another canvas */
  changed(rect: PixelRect, canvas = false): void {
    this.anotherCanvas ||= canvas;
    const { width, height, tilesX } = this.painting();
    const { left, top, right, bottom } = clipRect(rect, width, height);
    for (let y = top >> 6; y * TILE < bottom; y++) {
      for (let x = left >> 6; x * TILE < right; x++) this.changedTiles.add(y * tilesX + x);
    }
  }

  get isOld(): boolean {
    return this.anotherCanvas || this.changedTiles.size > 0;
  }

  /** Colours what has changed. @returns the cells that look otherwise; all where the canvas is another one */
  update(): PixelRect {
    if (this.anotherCanvas) {
      this.dispose();
      this.changedTiles.clear();
      [this.picture, this.pyramid] = this.layOut();
    }
    const lit = noRect();
    const { painting } = this.picture;
    for (const run of this.runs()) {
      const rect = this.picture.update(run, true);
      this.pyramid.update(rect);
      growRect(lit, rect);
    }
    this.changedTiles.clear();
    return isEmpty(lit) ? lit : clipRect(lit, painting.width, painting.height);
  }

  /** Tiles side by side that have changed, in one rectangle. */
  private *runs(): Generator<PixelRect> {
    const { painting } = this.picture;
    const indices = [...this.changedTiles].sort((a, b) => a - b);
    for (let i = 0; i < indices.length;) {
      const from = i++;
      while (i < indices.length && indices[i] === indices[i - 1] + 1 && indices[i] % painting.tilesX !== 0) i++;
      const [first, last] = [tileRect(painting, indices[from]), tileRect(painting, indices[i - 1])];
      yield { ...first, right: last.right };
    }
  }

  /** RGBA of a rectangle of a view; what lies beside the painting is clear. */
  draw(view: View, rect: PixelRect): Uint8ClampedArray<ArrayBuffer> {
    return drawView(this.pyramid, this.picture.painting.arena.u32, view, rect);
  }

  /** The whole picture as the lamp shows it, three channels of 8 bits. */
  raster(): { readonly width: number; readonly height: number; readonly channels: 3; readonly data: Uint8Array } {
    const { painting, lit } = this.picture;
    const { width, height, arena } = painting;
    const data = new Uint8Array(3 * width * height);
    for (let i = 0, j = 0; i < width * height; i++) {
      const code = arena.u32[lit + i];
      data[j++] = code & 255;
      data[j++] = (code >>> 8) & 255;
      data[j++] = (code >>> 16) & 255;
    }
    return { width, height, channels: 3, data };
  }

  dispose(): void {
    this.pyramid.dispose();
    this.picture.dispose();
  }
}

/** A view of a whole picture in the middle of so many pixels. */
export function fitted(width: number, height: number, of: { readonly width: number; readonly height: number }): View {
  return {
    width,
    height,
    centreX: of.width / 2,
    centreY: of.height / 2,
    zoom: Math.min(width / of.width, height / of.height),
    turn: 0,
    mirror: false,
  };
}
