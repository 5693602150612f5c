import { COAT_UM } from '@/core/film/packing/stratum';
import { CLOSED_UM } from './colour';
import { SHEEN } from './relight';

/**
 * How the surface of a painting stands up and takes the light: heights in um, and the sheen in the high byte of the
 * picture's codes. Both are rasters with rows `row` words apart, given by the word address of the first cell; planes of
 * tiles have rows `pitch` words apart, and are given by their first cell too (0: there is no such plane). These are the
 * plain loops, the oracle of their compiled twins.
 */

/** Thickness that a wet film has to have for its solvent to dull it, um. */
const WET_UM = 1;
/** Share of solvent from which a film dries matte, and over what range it does so. */
const LEAN_FROM = 0.25;
const LEAN_RANGE = 0.5;

const withSheen = (code: number, sheen: number) => ((code & 0x00ffffff) | (sheen << 24)) >>> 0;

/**
 * The bare support, with what is known of the lowest films.
 * @param shading share of the heights, which stand in `relief`, that the light shows
 * @param um, codes planes of what those films add, and of codes with their sheen; or both 0
 */
export function groundSurface(
  f32: Float32Array,
  u32: Uint32Array,
  columns: number,
  rows: number,
  shading: number,
  um: number,
  codes: number,
  pitch: number,
  relief: number,
  picture: number,
  row: number,
): void {
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) {
      const at = y * row + x;
      const from = y * pitch + x;
      const height = f32[relief + at] * shading;
      f32[relief + at] = um ? height + f32[um + from] : height;
      u32[picture + at] = withSheen(u32[picture + at], um ? u32[codes + from] >>> 24 : SHEEN);
    }
  }
}

/**
 * Adds a film to the relief, and says how it takes the light: wet paint shines, dry oil keeps part of its gloss, what
 * was thinned dries matte.
 * @param dryShare, wetShare share of the dry and the wet thickness that shows
 * @param sealed, volume planes of dry and wet thickness, um
 * @param solvent plane of the solvent in the wet film, coats @param lean plane of how lean the dry film was laid, 0..1
 * @param off plane of the share of the dry film that is being rubbed off
 * @param shares plane of the share in which each cell is seen
 */
export function filmSurface(
  f32: Float32Array,
  u32: Uint32Array,
  columns: number,
  rows: number,
  dryShare: number,
  wetShare: number,
  sealed: number,
  volume: number,
  solvent: number,
  lean: number,
  off: number,
  shares: number,
  pitch: number,
  relief: number,
  picture: number,
  row: number,
): void {
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) {
      const from = y * pitch + x;
      const seen = shares ? f32[shares + from] : 1;
      const dry = sealed ? f32[sealed + from] * dryShare * seen * (off ? 1 - f32[off + from] : 1) : 0;
      const film = volume ? f32[volume + from] : 0;
      const wet = film * wetShare * seen;
      if (dry + wet <= 0) continue;
      const at = y * row + x;
      f32[relief + at] += dry + wet;
      let thin = 0;
      if (wet > WET_UM) thin = solvent ? (f32[solvent + from] * COAT_UM) / film : 0;
      else if (lean) thin = f32[lean + from];
      const matte = Math.min(1, Math.max(0, thin - LEAN_FROM) / LEAN_RANGE);
      const gloss = Math.min(127, wet * 3 + Math.min(55, dry * 1.5)) * (1 - matte);
      const dull = 127 * matte * Math.min(1, (wet + dry) / CLOSED_UM);
      u32[picture + at] = withSheen(u32[picture + at], SHEEN + gloss - dull);
    }
  }
}
