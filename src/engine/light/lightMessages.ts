import type { LightLook } from '@/core/study/light/lightPicture';
import type { LightStudy } from '@/core/study/light/lightStudy';
import type { BorderLine } from '@/core/study/light/shadowBorders';

/** What is asked for: a board at so many pixels. */
export interface LightWanted {
  readonly serial: number;
  readonly study: LightStudy;
  readonly width: number;
  readonly height: number;
  readonly look: LightLook;
  /** Levels of light at which areas of shade are told, shares of what would be there. */
  readonly shades?: readonly number[];
}

/** Where the shadow of a light begins, and where half of it does: lines in shares of the width. */
export interface SourceBorders {
  readonly source: number;
  readonly umbra: readonly BorderLine[];
  readonly penumbra: readonly BorderLine[];
}

/** A board as it is seen: coarse at first, then all of it. */
export interface LightSeen {
  readonly serial: number;
  readonly whole: boolean;
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  readonly borders: readonly SourceBorders[];
  /** Pieces of outlines: from x, y to x, y, mm, and the colour in which they are seen, sRGB 0 to 255. */
  readonly outlines: { readonly ends: Float64Array; readonly colours: Uint8ClampedArray };
  /** For each level asked for, closed lines round where less light is, in shares of the width; what is lighter lies right. */
  readonly shades: readonly (readonly BorderLine[])[];
}
