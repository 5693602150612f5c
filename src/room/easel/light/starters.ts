import { lampColour } from '@/core/study/light/lampColour';
import type { LightStudy, StudyThing } from '@/core/study/light/lightStudy';
import { DAYLIGHT, LAMPLIGHT, PLASTER } from './lightStore';

/** Places to begin with, for boards as wide as a room. */
export const STARTERS: readonly {
  name: string;
  view: LightStudy['view'];
  things: (board: LightStudy) => StudyThing[];
}[] = [
  {
    name: 'A room with a window',
    view: 'plan',
    things({ widthMm: w, heightMm: h }) {
      const wall = (id: number, x0: number, y0: number, x1: number, y1: number): StudyThing => ({
        id,
        is: 'wall',
        from: { x: x0 * w, y: y0 * h },
        to: { x: x1 * w, y: y1 * h },
        thickMm: 0.045 * w,
        colour: PLASTER,
      });
      return [
        wall(1, 0.12, 0.1, 0.12, 0.92),
        wall(2, 0.12, 0.1, 0.9, 0.1),
        wall(3, 0.9, 0.1, 0.9, 0.92),
        {
          id: 4,
          is: 'window',
          wall: 1,
          along: 0.42,
          wideMm: 0.26 * h,
          turned: true,
          strength: 2,
          colour: lampColour(8500),
        },
        { id: 5, is: 'round', at: { x: 0.45 * w, y: 0.45 * h }, radiusMm: 0.06 * w, colour: [0.5, 0.22, 0.12] },
        { id: 6, is: 'lamp', at: { x: 0.75 * w, y: 0.78 * h }, radiusMm: 0.012 * w, strength: 1.2, colour: LAMPLIGHT },
      ];
    },
  },
  {
    name: 'A still life under a lamp',
    view: 'section',
    things({ widthMm: w, heightMm: h }) {
      return [
        {
          id: 1,
          is: 'wall',
          from: { x: 0, y: 0.82 * h },
          to: { x: w, y: 0.82 * h },
          thickMm: 0.03 * w,
          colour: [0.45, 0.36, 0.26],
        },
        {
          id: 2,
          is: 'wall',
          from: { x: 0.94 * w, y: 0 },
          to: { x: 0.94 * w, y: 0.8 * h },
          thickMm: 0.03 * w,
          colour: PLASTER,
        },
        { id: 3, is: 'lamp', at: { x: 0.2 * w, y: 0.2 * h }, radiusMm: 0.03 * w, strength: 1.5, colour: LAMPLIGHT },
        { id: 4, is: 'round', at: { x: 0.5 * w, y: 0.72 * h }, radiusMm: 0.07 * w, colour: [0.55, 0.12, 0.08] },
        {
          id: 5,
          is: 'outline',
          corners: [
            { x: 0.62 * w, y: 0.8 * h },
            { x: 0.63 * w, y: 0.52 * h },
            { x: 0.72 * w, y: 0.52 * h },
            { x: 0.73 * w, y: 0.8 * h },
          ],
          colour: [0.3, 0.4, 0.42],
        },
      ];
    },
  },
  {
    name: 'Open air',
    view: 'section',
    things({ widthMm: w, heightMm: h }) {
      return [
        { id: 1, is: 'sky', strength: 0.6, colour: lampColour(11_000) },
        { id: 2, is: 'sun', from: 38, wide: 0.53, strength: 2.5, colour: DAYLIGHT },
        {
          id: 3,
          is: 'wall',
          from: { x: 0, y: 0.85 * h },
          to: { x: w, y: 0.85 * h },
          thickMm: 0.03 * w,
          colour: [0.5, 0.44, 0.34],
        },
        {
          id: 4,
          is: 'outline',
          corners: [
            { x: 0.4 * w, y: 0.83 * h },
            { x: 0.4 * w, y: 0.55 * h },
            { x: 0.52 * w, y: 0.42 * h },
            { x: 0.64 * w, y: 0.55 * h },
            { x: 0.64 * w, y: 0.83 * h },
          ],
          colour: [0.6, 0.55, 0.5],
        },
      ];
    },
  },
];
