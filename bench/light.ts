/**
 * How soon a light study is seen, as JSON: a board of 2000 x 1500 points with five lights and thirty edges, coarse at first
 * and then in full. `npm run bench:light`
 */
import { lightStudySchema } from '@/core/study/light/lightStudy';
import { lightAtFirst, lightInFull } from '@/engine/light/seeLight';
import { copyTime, percentile, round } from './measure';

const WHITE = [1, 1, 1];
const GREY = [0.5, 0.5, 0.5];
const wall = (x0: number, y0: number, x1: number, y1: number, thickMm: number) => ({
  is: 'wall',
  from: { x: x0, y: y0 },
  to: { x: x1, y: y1 },
  thickMm,
  colour: GREY,
});
const pentagon = (x: number, y: number, r: number) => ({
  is: 'outline',
  corners: [0, 1, 2, 3, 4].map((i) => ({ x: x + r * Math.cos(i * 1.2566), y: y + r * Math.sin(i * 1.2566) })),
  colour: GREY,
});
const study = lightStudySchema.parse({
  view: 'plan',
  widthMm: 6000,
  heightMm: 4500,
  unit: 'm',
  things: [
    wall(300, 300, 5700, 300, 200),
    { is: 'window', wall: 0, along: 0.4, wideMm: 900, turned: false, strength: 1, colour: WHITE },
    wall(300, 300, 300, 4000, 200),
    wall(5700, 300, 5700, 4000, 200),
    pentagon(3000, 2500, 400),
    pentagon(4400, 1500, 200),
    wall(1500, 3000, 2200, 3200, 50),
    { is: 'round', at: { x: 2000, y: 1800 }, radiusMm: 250, colour: GREY },
    { is: 'lamp', at: { x: 1000, y: 2500 }, radiusMm: 80, strength: 1, colour: WHITE },
    { is: 'lamp', at: { x: 4000, y: 3500 }, radiusMm: 30, strength: 1, colour: WHITE },
    { is: 'sun', from: 70, wide: 0.53, strength: 1, colour: WHITE },
    { is: 'sky', strength: 1, colour: WHITE },
  ].map((thing, id) => ({ id, ...thing })),
});
const wanted = { serial: 1, study, width: 2000, height: 1500, look: 'light' } as const;

function times(count: number, of: () => void): number[] {
  return Array.from({ length: count }, () => {
    const start = performance.now();
    of();
    return performance.now() - start;
  });
}

const [cold, ...warm] = times(8, () => lightAtFirst(wanted));
const full = times(3, () => lightInFull(wanted));
const copy = copyTime();
console.log(
  JSON.stringify(
    {
      board: '2000 x 1500, 5 lights, 30 edges and a round thing',
      firstPictureMs: { cold: round(cold), p50: round(percentile(warm, 0.5)), max: round(Math.max(...warm)) },
      wholeMs: { p50: round(percentile(full, 0.5)) },
      firstToCopy16MiB: round(percentile(warm, 0.5) / copy),
      wholeToCopy16MiB: round(percentile(full, 0.5) / copy),
    },
    null,
    2,
  ),
);
