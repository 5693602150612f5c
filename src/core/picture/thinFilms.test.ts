import { describe, expect, it } from 'vitest';
import cie from '@/core/colour/data/cie.json';
import file from '@/core/colour/data/pigments.json';
import { xyzToLab, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { pigmentIndex } from '@/core/colour/pigments';
import { TILE_CELLS } from '@/core/film/cells';
import { COAT_UM } from '@/core/film/packing/stratum';
import { line, loaded, paint, studioFor, type Area } from '@/measure/bench';
import type { Mixture } from '@/core/colour/mixture';
import type { Studio } from '@/core/journal/studio';
import { Picture } from './picture';

/**
 * Even films against the hyperbolic solution of Kubelka and Munk (1931; Kubelka 1948) in 36 bands, worked out here from
 * the tables alone: nothing of what paints the picture is used.
 */
const bands = cie.wavelengths.map((_, i) => i);
const tables = new Map(file.pigments.map((p) => [p.id, p]));

/** Reflectance of a film of so many coats over a substrate, inside the film, at one band. */
function film(K: number, S: number, Rg: number): number {
  if (K + S === 0) return Rg;
  if (S < 1e-9) return Rg * Math.exp(-2 * K);
  const a = (S + K) / S;
  const b = Math.sqrt(a * a - 1);
  const coth = b * S < 1e-6 ? 1 / Math.max(b * S, 1e-12) : 1 / Math.tanh(b * S);
  return (1 - Rg * (a - b * coth)) / (a - Rg + b * coth);
}

const sums = (mixture: Mixture, coats: number, i: number) => {
  const all = Object.values(mixture).reduce((s, p) => s + p, 0);
  let [K, S] = [0, 0];
  for (const [id, parts] of Object.entries(mixture)) {
    const p = tables.get(id)!;
    K += (parts / all) * coats * p.K[i];
    S += (parts / all) * coats * p.S[i];
  }
  return [K, S] as const;
};

/** Saunderson's surface, as 3-engine has it: what is reflected outside, of what is reflected inside. */
const [K1, K2, VEIL] = [0.04, 0.5, 0.005];
const outside = (R: number) => VEIL + ((1 - K1) * (1 - K2) * R) / (1 - K2 * R);

function lab(internal: readonly number[]): Triple {
  const xyz: Triple = [0, 0, 0];
  let white = 0;
  for (const i of bands) {
    const light = outside(internal[i]) * cie.d65[i];
    xyz[0] += light * cie.xbar[i];
    xyz[1] += light * cie.ybar[i];
    xyz[2] += light * cie.zbar[i];
    white += cie.ybar[i] * cie.d65[i];
  }
  return xyzToLab([xyz[0] / white, xyz[1] / white, xyz[2] / white]);
}

/** Lays an even film over the first tile. */
function lay(studio: Studio, id: string, um: number): void {
  const { painting } = studio;
  const { arena } = painting;
  const tile = painting.active.ensureTile(0, arena);
  tile.wet();
  tile.massPlane(pigmentIndex(id));
  const { f32 } = arena;
  f32.fill(um, tile.volume >> 2, (tile.volume >> 2) + TILE_CELLS);
  const mass = tile.mass[tile.pigments.indexOf(pigmentIndex(id))] >> 2;
  f32.fill(um / COAT_UM, mass, mass + TILE_CELLS);
  tile.version++;
}

const GROUNDS: readonly (readonly [string, Mixture])[] = [
  ['white', { PW6: 1 }],
  ['grey', { PW6: 3, PBk9: 1 }],
  ['black', { PBk9: 1 }],
];

describe('a thin even film', () => {
  it.each(['PB15_3', 'PR101V', 'PW6', 'PY43'])(
    'of %s is that of the formula in 36 bands, on white, grey and black',
    (id) => {
      const errors: Record<string, number> = {};
      for (const [name, tone] of GROUNDS) {
        // a primed ground under the tone: what lies deeper than two coats is not seen
        const ground = bands.map((i) => film(...sums(tone, 2, i), film(...sums({ PW6: 1 }, 0, i), 0.947368)));
        for (const um of [2, 4, 7, 9, 11, 20]) {
          const studio = studioFor(20, 20, { surface: { kind: 'smooth' }, tone: { mixture: { ...tone } } });
          lay(studio, id, um);
          const want = lab(bands.map((i) => film(...sums({ [id]: 1 }, um / COAT_UM, i), ground[i])));
          errors[`${name} ${um}`] = deltaE2000(want, new Picture(studio.painting).labAt(30, 30));
        }
      }
      for (const [where, error] of Object.entries(errors)) expect(error, where).toBeLessThan(1);
    },
  );

  it('of phthalo blue at 4 um on white is dark', () => {
    const studio = studioFor(20, 20, { surface: { kind: 'smooth' } });
    lay(studio, 'PB15_3', 4);
    const [L] = new Picture(studio.painting).labAt(30, 30);
    expect(L).toBeGreaterThan(12);
    expect(L).toBeLessThan(20);
  });
});

describe('a glaze', () => {
  const AREA: Area = [10, 9, 10, 2];
  it.each([
    ['white', { PW6: 1 }],
    ['ochre', { PY43: 1 }],
    ['dark', { PBr7BU: 2, PB29: 1 }],
  ] as [string, Mixture][])(
    'over %s is that of the formula for what lies there, and lets the ground through',
    (_, tone) => {
      const ground = bands.map((i) => film(...sums(tone, 2, i), 0.947368));
      for (const id of ['PB15_3', 'PR83', 'PY43']) {
        const studio = studioFor(30, 20, { surface: { kind: 'smooth' }, tone: { mixture: { ...tone } } });
        paint(studio, ...loaded('flat', 12, { [id]: 1 }, { thin: 0.98 }), line(2, 10, 28, 10));
        const { painting } = studio;
        const picture = new Picture(painting);
        const errors: number[] = [];
        let coats = 0;
        let cells = 0;
        for (let x = AREA[0]; x < AREA[0] + AREA[2]; x++) {
          const [px, py] = [Math.round(x / painting.mmPerPx), Math.round((AREA[1] + 1) / painting.mmPerPx)];
          const tile = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)]!;
          const plane = tile.mass[tile.pigments.indexOf(pigmentIndex(id))] >> 2;
          const here = painting.arena.f32[plane + (py & 63) * 64 + (px & 63)];
          coats += here;
          cells++;
          const want = lab(bands.map((i) => film(...sums({ [id]: 1 }, here, i), ground[i])));
          errors.push(deltaE2000(want, picture.labAt(px, py)));
        }
        expect(Math.max(...errors), id).toBeLessThan(2);
        // the masstone, as a thick coat would look, is far away: the ground is seen through it
        const masstone = lab(bands.map((i) => film(...sums({ [id]: 1 }, 4, i), ground[i])));
        const seen = lab(bands.map((i) => film(...sums({ [id]: 1 }, coats / cells, i), ground[i])));
        const bare = lab(ground);
        if (deltaE2000(masstone, bare) > 10) {
          expect(deltaE2000(seen, masstone), `${id}: from its masstone`).toBeGreaterThan(
            0.3 * deltaE2000(masstone, bare),
          );
          expect(deltaE2000(seen, bare), `${id}: from the bare ground`).toBeGreaterThan(2);
        }
      }
    },
  );
});
