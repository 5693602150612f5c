import type { Ageing } from '@/core/colour/ageing';
import type { Painting } from '@/core/film/painting';
import { growRect, isEmpty, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { Studio } from '@/core/journal/studio';
import { tileRect, wholeRect } from '@/core/film/tilesIn';
import { thumbnailPng } from '@/core/formats/thumbnail';
import { Picture, type Light } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { massesOf } from '@/core/picture/aids/masses';
import { rakingSmall } from '@/core/picture/rakingSmall';
import { unlitGlance, WHOLE } from '@/core/picture/unlit';
import type { CodeImage } from '@/core/study/looking/image';
import { valueCounts } from '@/core/study/looking/masses';
import { squint } from '@/core/study/looking/squint';
import { shares } from '@/core/study/looking/studyOf';
import { showsAnyPicture, throughAid } from '@/core/picture/aids/throughAid';
import { isPlain, type ViewOptions } from '@/core/picture/viewOptions';
import { AID_IDS, aidOf, type Aid } from '@/core/picture/aids/aids';
import type { GlassPicture } from '@/engine/questions';
import type { Lens, Looking } from '@/core/picture/aids/definition';
import { drawView, reachOf, rectInView, wholeImage, type View } from '@/core/picture/view';
import type { FromWorker } from '@/engine/protocol';
import { LaterPieces } from './laterPieces';
import { SlabPane } from './slabPane';
import { StaleTiles } from './staleTiles';
import { tilesInView } from './tilesInView';
import { Uncoloured } from './uncoloured';

/** Frames that may be on their way to the page: more would only wait there. */
const FRAMES_AHEAD = 1;
/** Longest piece of background work, ms: what a pen may have to wait. */
const SLICE_MS = 7;
/** Cells up to which a change is coloured at once. */
const AT_ONCE = 400_000;

type Post = (message: FromWorker, transfer: Transferable[]) => void;

/**
 * What the page is shown: the picture of the painting and of the slab, coloured as far as there is time, and sent as fast
 * as the page puts it on the screen.
 */
export class Screen {
  picture!: Picture;
  slab!: SlabPane;
  private pyramid!: Pyramid;
  private stale!: StaleTiles;
  private uncoloured = new Uncoloured(0, 0);
  private view: { serial: number; view: View; aid: Aid; how: Looking } | undefined;
  /** What the view is looked at through, until all of it is drawn anew. */
  private lens: (Lens & { readonly plain: boolean }) | undefined;
  /** How old the painting is looked at as. */
  private ageing: Ageing | undefined;
  private slabSize: { readonly width: number; readonly height: number } | undefined;
  private dirty = noRect();
  private readonly later = new LaterPieces();
  private framesOut = 0;
  /** Time of the newest reading of the pen that is in the picture. */
  private newest = 0;
  /** Tiles that are still to be prepared for a stroke, the nearest last; and for which view and layer. */
  private warmed: { key: string; tiles: number[] } = { key: '', tiles: [] };

  constructor(private readonly post: Post) {}

  // --- what is shown

  /** From now on this studio's slab is shown. */
  adopt({ slab }: Studio): void {
    const light = this.picture?.light;
    this.slab = new SlabPane(slab);
    if (light) this.slab.light(light);
    if (this.slabSize) this.slab.look(this.slabSize.width, this.slabSize.height);
  }

  /** From now on this canvas is shown, in the same light and in the same way. */
  layOut(painting: Painting): void {
    const { light, options } = this.picture ?? {};
    this.pyramid?.dispose();
    this.picture?.dispose();
    this.picture = new Picture(painting, this.ageing);
    if (light) this.picture.light = light;
    if (options) this.picture.options = options;
    this.picture.unlit = this.view !== undefined && this.looksAtColours(this.view.aid);
    this.pyramid = new Pyramid(this.picture);
    this.stale = new StaleTiles(painting);
    this.uncoloured = new Uncoloured(painting.width, painting.height);
    this.uncoloured.look(this.view?.view);
    this.warmed = { key: '', tiles: [] };
  }

  /** The page looks from elsewhere, or through an aid. */
  look(from: { serial: number; view: View; aid: Aid; how: Looking }): void {
    this.view = from;
    this.seeUnlit(this.looksAtColours(from.aid));
    this.lens = undefined;
    this.later.forget();
    this.dirty = { left: 0, top: 0, right: from.view.width, bottom: from.view.height };
    this.uncoloured.look(from.view);
  }

  /** Whether an aid shows colours of the paint, which light and relief would falsify. */
  private looksAtColours(aid: Aid): boolean {
    const definition = aidOf(aid);
    return definition !== undefined && showsAnyPicture(definition);
  }

  private seeUnlit(unlit: boolean): void {
    if (!this.picture || this.picture.unlit === unlit) return;
    this.picture.unlit = unlit;
    const whole = wholeRect(this.painting);
    this.picture.relight(whole);
    this.pyramid.update(whole);
  }

  lookAtSlab(width: number, height: number): void {
    this.slabSize = { width, height };
    this.slab.look(width, height);
  }

  lightFrom(light: Light): void {
    this.picture.light = light;
    this.slab.light(light);
    this.colourLater(wholeRect(this.painting));
  }

  /** Shows the painting after some years; as it is where nothing is said. */
  age(ageing: Ageing | undefined): void {
    if (!ageing && !this.ageing) return;
    this.ageing = ageing;
    this.layOut(this.painting);
    this.colourLater(wholeRect(this.painting));
  }

  /** How the painting is looked at, beside its state. What looks otherwise then is to be coloured by who says it. */
  get options(): ViewOptions {
    return this.picture.options;
  }
  set options(options: ViewOptions) {
    this.picture.options = options;
  }

  /** Whether a layer is shown as it would look. */
  get tries(): boolean {
    return this.picture !== undefined && this.options.looks.size > 0;
  }

  get isLookedAt(): boolean {
    return this.view !== undefined;
  }

  private get painting(): Painting {
    return this.picture.painting;
  }

  /** The picture of the painting as it is, whatever is looked at: for files and for the rack. */
  plainly<T>(render: (picture: Picture, pyramid: Pyramid) => T): T {
    if (isPlain(this.options) && !this.ageing) return this.inItsLight(render);
    const picture = new Picture(this.painting);
    const pyramid = new Pyramid(picture);
    picture.light = this.picture.light;
    pyramid.update(picture.update(wholeRect(picture.painting), true));
    try {
      return render(picture, pyramid);
    } finally {
      pyramid.dispose();
      picture.dispose();
    }
  }

  /** The picture as the lamp shows it, also while colours alone are looked at. */
  private inItsLight<T>(render: (picture: Picture, pyramid: Pyramid) => T): T {
    const { unlit } = this.picture;
    this.seeUnlit(false);
    try {
      return render(this.picture, this.pyramid);
    } finally {
      this.seeUnlit(unlit);
    }
  }

  thumbnail(): Uint8Array<ArrayBuffer> {
    return this.plainly((picture, pyramid) => thumbnailPng(pyramid, picture.painting));
  }

  // --- colouring

  /** Paint has changed. @param later whether it is coloured bit by bit: it changes many times before anyone can look */
  changed(rect: PixelRect, later = false): void {
    if (isEmpty(rect)) return;
    // so is a whole painting
    if (later || (rect.right - rect.left) * (rect.bottom - rect.top) > AT_ONCE) this.colourLater(rect);
    else this.colour(rect);
  }

  /** Water has moved in tiles. */
  flowed(tiles: ReadonlySet<number>): void {
    this.stale.add(tiles);
  }

  colourLater(rect: PixelRect): void {
    this.uncoloured.add(rect);
  }

  private colour(rect: PixelRect, inPassing = false): void {
    const lit = this.picture.update(rect, inPassing);
    this.pyramid.update(lit);
    if (this.view) growRect(this.dirty, rectInView(this.view.view, lit));
  }

  /** Whether everything is coloured that has not changed by water alone. */
  get isColoured(): boolean {
    return this.uncoloured.length === 0;
  }
  /** Whether there are tiles whose picture is older than their water. */
  get isStale(): boolean {
    return this.stale.size > 0;
  }

  /** Colours what has not been coloured yet, as far as there is time. */
  colourSome(start: number): void {
    while (!this.isColoured && performance.now() - start < SLICE_MS) this.colour(this.uncoloured.next()!, true);
  }

  /** Recolours tiles in which water has moved, those that have changed most first, as far as there is time. */
  colourWet(ms = SLICE_MS, near?: PixelRect): void {
    const start = performance.now();
    for (const index of this.stale.mostChanged(near)) {
      this.colour(tileRect(this.painting, index));
      if (performance.now() - start > ms) break;
    }
  }

  colourAll(): void {
    while (!this.isColoured) this.colour(this.uncoloured.next()!, true);
    for (const index of this.stale.mostChanged()) this.colour(tileRect(this.painting, index));
  }

  /**
   * Prepares tiles in view for being painted on, while nothing else is to be done.
   * @param quiet whether it has been for long enough to begin @returns whether more are left
   */
  warmTiles(start: number, quiet: boolean): boolean {
    if (!this.view) return false;
    const { painting } = this;
    const key = `${painting.activeLayer} ${painting.order} ${this.view.serial}`;
    if (this.warmed.key !== key) {
      if (!quiet) return false;
      this.warmed = { key, tiles: painting.layers.length > 2 ? tilesInView(painting, this.view.view) : [] };
    }
    const { tiles } = this.warmed;
    while (tiles.length > 0 && performance.now() - start < SLICE_MS) this.picture.warm(tiles.pop()!);
    return tiles.length > 0;
  }

  // --- showing

  /** The page has put a frame on the screen. */
  shown(): void {
    this.framesOut--;
  }

  /** Whether the page is ready for a frame. */
  get isAwaited(): boolean {
    return this.framesOut < FRAMES_AHEAD;
  }
  /** Whether the page shows everything that has been coloured of what it looks at. */
  get isShown(): boolean {
    return this.framesOut === 0 && !(this.view && (this.hasChanged || !this.later.isEmpty));
  }
  get hasChanged(): boolean {
    return !isEmpty(this.dirty);
  }

  /** Notes the newest reading of the pen. @param at ms since epoch */
  read(at: number): void {
    this.newest = at;
  }

  /**
   * Sends the part of the view that changed, when the page is ready for it.
   * @param painting whether the hand is painting: what an aid takes long for is then left for later
   */
  show(painting: boolean): void {
    const frame = this.slab?.frame();
    if (frame) this.post(frame, [frame.data.buffer]);
    if (!this.view || !this.picture || !this.isAwaited) return;
    if (isEmpty(this.dirty)) return;
    const { aid, how } = this.view;
    const rect = this.around(this.dirty);
    const later = aidOf(aid)?.later;
    if (later?.seeCode) {
      this.later.add(rect);
      if (this.isWhole(rect)) this.lens = undefined;
      this.draw(this.dirty, { aid: { name: aid, hint: '', seeCode: later.seeCode }, how });
    } else if (later && painting) {
      this.later.add(rect);
      this.draw(this.dirty, this.lensFor(this.dirty));
    } else this.draw(rect, this.lensFor(rect));
    this.dirty = noRect();
    this.newest = 0;
  }

  /** Draws a piece of what was left for later. @param resting whether it may take longer @returns whether there was one, and the page was ready for it */
  settle(resting: boolean): boolean {
    if (!this.view || !this.picture || !this.isAwaited || this.hasChanged) return false;
    const piece = this.later.next(resting);
    if (piece) this.draw(piece, this.lensFor(piece));
    return piece !== undefined;
  }

  /** Draws a part of the view through a lens, and sends it. */
  private draw(rect: PixelRect, lens: Lens | undefined): void {
    const { view, serial } = this.view!;
    const { left, top, right, bottom } = rect;
    const data = drawView(this.pyramid, this.painting.arena.u32, view, rect, lens);
    const whole = this.isWhole(rect);
    const { newest } = this;
    this.framesOut++;
    this.post(
      { say: 'pixels', serial, x: left, y: top, width: right - left, height: bottom - top, data, whole, newest },
      [data.buffer],
    );
  }

  /** The lens that a part is drawn through; undefined for the bare eye. */
  private lensFor(rect: PixelRect): Lens | undefined {
    // what is worked out from the whole picture stays until all of the view is drawn: else parts would not fit together
    if (this.isWhole(rect) || !this.lens) this.lens = this.lensNow();
    return this.lens.plain ? undefined : this.lens;
  }

  private isWhole({ left, top, right, bottom }: PixelRect): boolean {
    const { width, height } = this.view!.view;
    return left === 0 && top === 0 && right === width && bottom === height;
  }

  /** The part of the view that a change is seen in: more than has changed where it is seen from farther away. */
  private around({ left, top, right, bottom }: PixelRect): PixelRect {
    const { view, how, aid } = this.view!;
    const { px: reach, cut } = reachOf({ aid: aidOf(aid), how }, view, this.painting);
    if (cut) return { left: 0, top: 0, right: view.width, bottom: view.height };
    return {
      left: Math.max(0, left - reach),
      top: Math.max(0, top - reach),
      right: Math.min(view.width, right + reach),
      bottom: Math.min(view.height, bottom + reach),
    };
  }

  /** The whole picture, so wide, as it is, through each aid, and its relief in raking light. */
  glass(width: number, how: Looking): GlassPicture[] {
    const plain = this.small(width, 'none', how);
    const colours = unlitGlance(this.picture, width, plain.height);
    const seen = [plain, ...AID_IDS.map((aid) => this.smallThrough(aid, colours, how))];
    const values = shares(valueCounts({ codes: squint(colours, how.squintMm) }));
    const { height } = plain;
    return [
      ...seen.map((one) => (one.aid === 'masses' ? { ...one, masses: { values, of: massesOf(colours, how) } } : one)),
      { aid: 'none', width, height, rgba: rakingSmall(this.painting, width, height), raking: true },
    ];
  }

  private smallThrough(aid: Aid, colours: CodeImage, how: Looking): GlassPicture {
    const { width, height } = colours;
    if (!this.looksAtColours(aid)) return this.small(width, aid, how, height);
    const codes = throughAid(colours, aidOf(aid), how);
    return { aid, width, height, rgba: new Uint8ClampedArray(codes.slice().buffer) };
  }

  /** The whole picture or a part, so wide, through one aid. @param most height, where it is given: a row more or less */
  small(width: number, aid: Aid, how: Looking, most?: number, crop = WHOLE): GlassPicture {
    const { painting, pyramid } = this;
    const height = most ?? Math.max(1, Math.round((painting.height * width) / painting.width));
    const zoom = width / (painting.width * crop.width);
    const view = {
      width,
      height,
      centreX: painting.width * (crop.x + crop.width / 2),
      centreY: painting.height * (crop.y + crop.height / 2),
      zoom,
      turn: 0,
      mirror: false,
    };
    const all = { left: 0, top: 0, right: width, bottom: height };
    const lens = this.lensOf(aid, how);
    const rgba = drawView(pyramid, painting.arena.u32, view, all, lens.plain ? undefined : lens);
    return { aid, width, height, rgba };
  }

  private lensNow(): Lens & { readonly plain: boolean } {
    return this.lensOf(this.view!.aid, this.view!.how);
  }

  private lensOf(id: Aid, how: Looking): Lens & { readonly plain: boolean } {
    const aid = aidOf(id);
    const prepared = aid?.prepare?.(wholeImage(this.pyramid, this.painting.arena.u32), how);
    return { aid, how, prepared, plain: !aid && how.squintMm === 0 };
  }
}
