import type { Arena } from '@/core/film/arena';
import { driedAs, packPlane, stratumOf, unpackSteps } from '@/core/film/packing/stratum';
import { TILE_CELLS, type Tile } from '@/core/film/tile';
import { COATS } from '@/core/film/wash';

/** Coats of a pigment that make a mark of one strength, whatever the pigment. */
export type Unit = (pigment: number) => number;

/** A colour for lines: pigments (table indices) with the coats that make a mark of one strength. */
export type LineColour = ReadonlyMap<number, number>;

/**
 * Gives everything on a tile another colour, line for line as strong as before.
 * @returns coats times cells that went and that came, by pigment
 */
export function recolourTile(
  arena: Arena,
  tile: Tile,
  colour: LineColour,
  unit: Unit,
): { gone: Map<number, number>; come: Map<number, number> } {
  const gone = new Map<number, number>();
  const come = new Map<number, number>();
  const book = (into: Map<number, number>, pigment: number, sum: number) =>
    into.set(pigment, (into.get(pigment) ?? 0) + sum);
  /** Takes planes of some pigments for their strength. */
  const strengthOf = (planes: readonly { pigment: number; values: Float32Array }[]) => {
    const strength = new Float32Array(TILE_CELLS);
    for (const { pigment, values } of planes) {
      const per = 1 / unit(pigment);
      let sum = 0;
      for (let i = 0; i < TILE_CELLS; i++) {
        strength[i] += values[i] * per;
        sum += values[i];
      }
      book(gone, pigment, sum);
    }
    return strength;
  };
  const laid = (strength: Float32Array, pigment: number, coats: number) => {
    const out = strength.map((s) => s * coats);
    book(
      come,
      pigment,
      out.reduce((a, b) => a + b, 0),
    );
    return out;
  };
  const plane = (address: number) => arena.f32.slice(address >> 2, (address >> 2) + TILE_CELLS);

  const { wash } = tile;
  if (wash) {
    for (const coat of COATS) {
      const there = wash.pigments.flatMap((pigment, k) =>
        wash.coats[coat][k] ? [{ pigment, values: plane(wash.coats[coat][k]) }] : [],
      );
      if (there.length === 0) continue;
      const strength = strengthOf(there);
      for (const { pigment } of there) wash.drop(coat, pigment);
      for (const [pigment, coats] of colour) arena.write(wash.plane(coat, pigment), laid(strength, pigment, coats));
    }
  }
  if (tile.volume && tile.pigments.length > 0) {
    const strength = strengthOf(tile.pigments.map((pigment, k) => ({ pigment, values: plane(tile.mass[k]) })));
    for (const pigment of [...tile.pigments]) tile.dropPigment(pigment);
    tile.dropSkin();
    for (const [pigment, coats] of colour) arena.write(tile.massPlane(pigment), laid(strength, pigment, coats));
  }
  if (tile.strata.length > 0) {
    tile.setStrata(
      tile.strata.map((s) => {
        const strength = strengthOf(
          s.pigments.map((pigment, k) => {
            const values = new Float32Array(TILE_CELLS);
            unpackSteps(values, s.mass[k], 0, TILE_CELLS, s.massStep[k], 0);
            return { pigment, values };
          }),
        );
        const all = [...colour].sort((a, b) => a[0] - b[0]);
        const other = stratumOf(
          all.map(([pigment]) => pigment),
          all.map(([pigment, coats]) => packPlane(laid(strength, pigment, coats))),
          { steps: s.thickness, unit: s.thicknessStep },
        );
        return driedAs(s, other);
      }),
    );
  }
  tile.version++;
  return { gone, come };
}
