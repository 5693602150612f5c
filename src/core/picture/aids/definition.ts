import type { Painting } from '@/core/film/painting';
import type { CodeImage } from '@/core/study/looking/image';
import type { Broad, InView } from '@/core/study/looking/squint';

/** How aids are set, all of them: what is looked through with. */
export interface Looking {
  /** Half closed eyes, under whatever aid: deviation of the blur, mm; 0 for open ones. */
  readonly squintMm: number;
  /** Into how many masses the picture falls, 2 to 5. */
  readonly masses: number;
  /** Values between the masses, where they are set by hand: one fewer than masses, rising. */
  readonly borders?: readonly number[];
  /** What is warm or cool is compared with its surroundings, mm; 0 with a neutral grey. */
  readonly aroundMm: number;
  /** Whether thickness has lines between its steps. */
  readonly contours?: boolean;
  /** Value below which darks are lifted. */
  readonly liftBelow: number;
}

export const OPEN_EYES: Looking = { squintMm: 0, masses: 3, aroundMm: 12, liftBelow: 4 };

/** A looking aid: another way in which the picture is shown. Painting goes on under it. */
export interface LookingAid {
  readonly name: string;
  readonly hint: string;
  /** Key that puts it on and off. */
  readonly key?: string;
  /** It has its button on the sill, and not only in the looking glass. */
  readonly onSill?: true;
  /** What a colour (0xAABBGGRR) is shown as, of whatever picture. */
  readonly seeCode?: (code: number) => number;
  /** What a cell of the painting is shown as, by its paint. @param code its colour, 0xAABBGGRR */
  readonly see?: (code: number, painting: Painting, x: number, y: number) => number;
  /** What is worked out once from the whole picture, small, before any part of it is looked at. */
  readonly prepare?: (whole: CodeImage, how: Looking) => unknown;
  /** Whether a line is drawn where what is seen of one cell ends and of another begins. */
  readonly lined?: (how: Looking) => boolean;
  /**
   * What a drawn part of the picture, or of a photo, is shown as, where that depends on what lies around.
   * @param prepared what `prepare` gave
   * @param at where its upper left pixel lies in the view
   * @param broad what lies around it, where `broadMm` asks for that
   */
  readonly look?: (image: CodeImage, how: Looking, prepared: unknown, at: InView, broad?: Broad) => Uint32Array;
  /** How far it looks around a place, mm. */
  readonly reachMm?: (how: Looking) => number;
  /** What lies around counts only as soft as by this deviation, mm: it is told coarsely, and is not a part of the picture. */
  readonly broadMm?: (how: Looking) => number;
  /** And at least so many pixels of the view. */
  readonly reachPx?: number;
  /**
   * It looks so far around, or so long, that what lies around a stroke is drawn anew only when the hand has lifted. What
   * is painted is shown meanwhile by `seeCode`, where that is given.
   */
  readonly later?: { readonly seeCode?: (code: number) => number };
}

/** An aid with how it is set and what it has prepared: what a view is looked at through. */
export interface Lens {
  readonly aid?: LookingAid;
  readonly how: Looking;
  readonly prepared?: unknown;
}
