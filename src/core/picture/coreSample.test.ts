import { expect, it } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { field, paint, studioFor } from '@/measure/bench';
import { wholeRect } from '@/core/film/tilesIn';
import { coreAt, section } from './coreSample';
import { Picture } from './picture';

/** Umber over everything, dried; white over the right half, dried; red on a third of that, wet. */
function strata() {
  const studio = studioFor(40, 30, { ppi: 70 });
  paint(studio, ...field([0, 0, 40, 30], { PBr7BU: 1 }, 9, 0.5));
  studio.apply({ do: 'dry' });
  paint(studio, ...field([20, 0, 20, 30], { PW6: 1 }, 9, 0.5));
  studio.apply({ do: 'dry' });
  paint(studio, ...field([20, 0, 20, 10], { PR188: 3, PY35: 1 }, 9, 0.5));
  const picture = new Picture(studio.painting);
  picture.update(wholeRect(studio.painting));
  return picture;
}

it('a core has the strata in the order in which they were laid, each with its recipe, dry below and wet above', () => {
  const picture = strata();
  const cell = (mm: number) => Math.floor(mm / picture.painting.mmPerPx);
  const left = coreAt(picture, cell(10), cell(15));
  expect(left.films.map(({ state, mixture }) => [state, Object.keys(mixture)])).toEqual([['dry', ['PBr7BU']]]);
  const three = coreAt(picture, cell(30), cell(5));
  expect(three.films.map(({ state }) => state)).toEqual(['dry', 'dry', 'wet']);
  const [umber, white, red] = three.films;
  expect(Object.keys(umber.mixture)).toEqual(['PBr7BU']);
  expect(white.mixture.PW6).toBeGreaterThan(0.9);
  expect(red.mixture.PR188 / red.mixture.PY35).toBeGreaterThan(2);
  expect(red.mixture.PR188 / red.mixture.PY35).toBeLessThan(4);
  expect(three.um).toBeCloseTo(umber.um + white.um + red.um, 9);
  // dark, then light, then the red that is seen
  expect(umber.seen[0]).toBeLessThan(white.seen[0] - 20);
  expect(deltaE2000(three.films[2].seen, picture.labAt(cell(30), cell(5)))).toBeLessThan(3);
  expect(deltaE2000(left.films[0].seen, picture.labAt(cell(10), cell(15)))).toBeLessThan(3);
});

it('a section has cores along the line, and leaves out what lies beside the painting', () => {
  const picture = strata();
  const cores = section(picture, { x: 2, y: 25 }, { x: 38, y: 25 }, 19);
  expect(cores).toHaveLength(19);
  expect(cores[0].films).toHaveLength(1);
  expect(cores[18].films).toHaveLength(2);
  expect(section(picture, { x: -40, y: 15 }, { x: 38, y: 15 }, 40).length).toBeLessThan(22);
  expect(section(picture, { x: -9, y: -9 }, { x: -2, y: -2 }, 5)).toEqual([]);
});

it('bare ground is a core without films', () => {
  const { painting } = studioFor(20, 16);
  const picture = new Picture(painting);
  picture.update(wholeRect(painting));
  const core = coreAt(picture, 3, 3);
  expect(core.films).toEqual([]);
  expect(core.um).toBe(0);
  expect(deltaE2000(core.ground, picture.labAt(3, 3))).toBeLessThan(4);
});
