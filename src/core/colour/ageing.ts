import { BANDS } from '@/core/colour/bands';
import { maths } from '@/core/maths/maths';
import { tubeAt } from './pigments';

/**
 * What years do to paint: laws of how pigments fade, oil yellows and grows more transparent, and dust settles. They are
 * means over many makers and many rooms. A single tube may fade three times as fast or as slowly; nobody knows how dark a
 * store will be. What they show is a direction and its size, never a promise.
 */
export interface Ageing {
  readonly years: number;
  readonly place: StoredIn;
}

/** Where a picture hangs. */
export const PLACES = {
  room: {
    name: 'A lit room',
    says: '200 lux for ten hours a day, through window glass',
    /** Light of a year, Mlx h; whether there is ultraviolet in it; how dark it is for oil, 0..1; dust on a bare surface, share a year. */
    light: 0.73,
    ultraviolet: true,
    dark: 0,
    dust: 0.0035,
  },
  museum: {
    name: 'A museum',
    says: '50 lux for eight hours on three hundred days, without ultraviolet',
    light: 0.12,
    ultraviolet: false,
    dark: 0.5,
    dust: 0.0008,
  },
  store: {
    name: 'A dark store',
    says: 'wrapped, in the dark',
    light: 0.001,
    ultraviolet: false,
    dark: 1,
    dust: 0.0002,
  },
} as const;
export type StoredIn = keyof typeof PLACES;
export const PLACE_IDS = Object.keys(PLACES) as [StoredIn, ...StoredIn[]];

/** Light after which blue wool 1 to 8 has just visibly faded, Mlx h, without and with ultraviolet (CIE 157:2004, table 3). */
const FADES_AFTER = [0.3, 1, 3, 10, 30, 100, 300, 1100];
const FADES_AFTER_UV = [0.22, 0.6, 1.5, 3.5, 8, 20, 50, 120];
/** Share of a colourant that is gone when the eye first sees it go. */
const FIRST_SEEN = 0.08;

/** Light after which a pigment has just visibly faded, Mlx h: between two steps of the scale in proportion. */
function fadesAfter(step: number, ultraviolet: boolean): number {
  const table = ultraviolet ? FADES_AFTER_UV : FADES_AFTER;
  const at = Math.max(1, Math.min(8, step)) - 1;
  const low = Math.min(6, Math.floor(at));
  return maths.exp(maths.log(table[low]) + (at - low) * (maths.log(table[low + 1]) - maths.log(table[low])));
}

/**
 * Share of a pigment's colour that is left, 0..1: it fades by a reaction of the first order in the light that it has had
 * (Johnston-Feller, Feller, Bailie and Curran 1984, J. Am. Inst. Conservation 23). What nobody has tested is taken not to fade.
 * @param pigment index in the tables
 */
export function leftOf(pigment: number, { years, place }: Ageing): number {
  const step = tubeAt(pigment)?.blueWool;
  if (step === undefined) return 1;
  const { light, ultraviolet } = PLACES[place];
  return maths.exp((maths.log(1 - FIRST_SEEN) * light * years) / fadesAfter(step, ultraviolet));
}

/** How fast linseed oil yellows, years; and what it comes to, absorption at 450 nm of a micrometre, in light and in the dark. */
const YELLOWS_YEARS = 9;
const YELLOW_IN_LIGHT = 0.00035;
const YELLOW_IN_DARK = 0.0011;
/** Absorption of yellowed oil falls to a third towards red in so many nm. */
const YELLOW_TAIL = 55;

/**
 * Absorption of the oil in a micrometre of film, in a band: it yellows to a limit within some decades, about three times as
 * much in the dark, where light does not bleach it (Mallegol, Gardette and Lemaire 2001, Studies in Conservation 46;
 * Levison 1985, J. Oil Colour Chem. Assoc.), and so the thicker the film the more.
 */
export function yellowOf(band: number, { years, place }: Ageing): number {
  const most = YELLOW_IN_LIGHT + (YELLOW_IN_DARK - YELLOW_IN_LIGHT) * PLACES[place].dark;
  const reached = 1 - maths.exp(-years / YELLOWS_YEARS);
  return most * reached * maths.exp(-(BANDS.wavelengths[band] - 450) / YELLOW_TAIL);
}

/** Refractive index of linseed oil when it has dried, and after centuries; how fast it rises, years (Laurie 1937, Proc. R. Soc. A 159). */
const OIL_FRESH = 1.48;
const OIL_OLD = 1.57;
const OIL_YEARS = 60;
/** Refractive index of pigments by how they cover: what is opaque in oil refracts strongly. */
const REFRACTS = { opaque: 2.5, semi: 2, transparent: 1.7 } as const;

/** Lorentz and Lorenz: how strongly grains of one index scatter in another. */
const scatters = (grain: number, around: number): number => {
  const m2 = (grain / around) * (grain / around);
  const q = (m2 - 1) / (m2 + 2);
  return q * q;
};

/**
 * Share of a pigment's scattering that is left when the index of the oil around it has risen: thin films grow transparent,
 * and what lies below comes through (pentimenti). Indices are taken by class, not by pigment.
 */
export function scatterLeftOf(pigment: number, { years }: Ageing): number {
  const grain = REFRACTS[tubeAt(pigment)?.transparency ?? 'semi'];
  const oil = OIL_FRESH + (OIL_OLD - OIL_FRESH) * (1 - maths.exp(-years / OIL_YEARS));
  return scatters(grain, oil) / scatters(grain, OIL_FRESH);
}

/** Reflectance of dust of rooms, and how much of it is ever left between cleanings, as a share of the surface. */
export const DUST_REFLECTS = 0.22;
const MOST_DUST = 0.3;

/**
 * Share of a surface that dust hides: it settles evenly and is never dusted off a surface that cannot be wiped (Nazaroff,
 * Salmon and Cass 1990, Environ. Sci. Technol. 24). A closed film of oil or acrylic is wiped clean.
 */
export function dustOn(bare: boolean, { years, place }: Ageing): number {
  return bare ? MOST_DUST * (1 - maths.exp((-PLACES[place].dust * years) / MOST_DUST)) : 0;
}
