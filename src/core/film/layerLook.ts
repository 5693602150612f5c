import type { Adjustment } from '@/core/colour/adjust';
import type { BlendMode } from '@/core/colour/blendModes';

/**
 * - `paint` is a physical film: takes all paint; `drawing` takes sticks and ink and is kept apart from the paint
 * - `picture` has pixels: a photo, a texture, a copy of the whole picture
 * - `tone` is light that is sprayed or brushed: shade and glow
 * - `adjust` changes the colours of what lies below
 * - `group` holds other layers together
 * - `selection` is no layer of the stack: its mask says what is selected
 */
export const LAYER_KINDS = ['paint', 'drawing', 'picture', 'tone', 'adjust', 'group', 'selection'] as const;
export type LayerKind = (typeof LAYER_KINDS)[number];

/** How a layer is named, seen and painted on. Never changed in place: another look is another object. */
export interface LayerLook {
  readonly name: string;
  readonly visible: boolean;
  /** Share of its effect that is seen; its paint stays as it is. */
  readonly opacity: number;
  /** Nothing can be done to it. */
  readonly locked: boolean;
  readonly blend: BlendMode;
  /** Seen only where the layer below has something. */
  readonly clip: boolean;
  /** Id of the group that it belongs to. */
  readonly group: string | undefined;
  /** Its mask: what holds where nothing was painted on the mask (0 hides, 255 shows), and whether it is in use. */
  readonly mask: { readonly fill: 0 | 255; readonly on: boolean } | undefined;
  /** Takes paint only where it has some. */
  readonly onlyPaint: boolean;
  /** A brush takes up wet paint from the layer below. */
  readonly wetThrough: boolean;
  /** The relief of the layers below catches a dry brush. */
  readonly impress: boolean;
  readonly adjust: Adjustment | undefined;
}

export const PLAIN_LOOK: LayerLook = {
  name: '',
  visible: true,
  opacity: 1,
  locked: false,
  blend: 'normal',
  clip: false,
  group: undefined,
  mask: undefined,
  onlyPaint: false,
  wetThrough: false,
  impress: true,
  adjust: undefined,
};

/** Kinds that hold paint. */
export const holdsFilm = (kind: LayerKind): boolean => kind === 'paint' || kind === 'drawing';
/** Kinds that hold pixels. */
export const holdsPixels = (kind: LayerKind): boolean => kind === 'picture' || kind === 'tone';

const serials = new WeakMap<LayerLook, number>();
let nextSerial = 1;
/** A number that no other look has: for caches. */
export function lookSerial(look: LayerLook): number {
  let serial = serials.get(look);
  if (!serial) serials.set(look, (serial = nextSerial++));
  return serial;
}
