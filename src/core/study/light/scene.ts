import { hypot, maths } from '@/core/maths/maths';
import type { LightStudy, StudyThing, ThingOf } from './lightStudy';

/** A light as points see it. All lengths in mm. */
export interface Source {
  /** Of the thing that it is. */
  readonly id: number;
  readonly kind: 'lamp' | 'sun' | 'sky' | 'window';
  readonly strength: number;
  readonly colour: readonly [number, number, number];
  /** Middle of a lamp; outer opening of a window from end to end. */
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly radius: number;
  /** Unit direction to a sun, or to the middle of a sky; and half its angle: radians, cosine, sine. */
  readonly ux: number;
  readonly uy: number;
  readonly half: number;
  readonly cosHalf: number;
  readonly sinHalf: number;
}

/** What stands in the way, and the lights. */
export interface Scene {
  /** Edges of all outlines, four numbers each: from x, y, to x, y; what is solid lies to the right on the board. */
  readonly edges: Float64Array;
  /** Round things: x, y, radius. */
  readonly rounds: Float64Array;
  /** How much of each colour of light an edge, and a round thing, gives back: three numbers each. */
  readonly edgeColours: Float64Array;
  readonly roundColours: Float64Array;
  /** Openings of windows, as edges: a sky does not shine through what has a light of its own. */
  readonly openings: Float64Array;
  readonly sources: readonly Source[];
}

const DEGREE = Math.PI / 180;

/** An outline so that what is solid lies to the right of each edge: y goes down. */
function turnedRight(corners: readonly { x: number; y: number }[]): readonly { x: number; y: number }[] {
  let area = 0;
  for (let i = 0; i < corners.length; i++) {
    const a = corners[i];
    const b = corners[(i + 1) % corners.length];
    area += a.x * b.y - b.x * a.y;
  }
  return area > 0 ? corners : [...corners].reverse();
}

interface Opening {
  readonly window: ThingOf<'window'>;
  /** Along the wall, mm. */
  readonly from: number;
  readonly to: number;
}

/** Openings of a wall from its beginning on; what overlaps an earlier one begins where that ends. */
function openingsOf(wall: ThingOf<'wall'>, length: number, things: readonly StudyThing[]): Opening[] {
  const all = things
    .filter((t) => t.is === 'window')
    .filter((t) => t.wall === wall.id)
    .map((window) => ({
      window,
      from: Math.max(0, window.along * length - window.wideMm / 2),
      to: Math.min(length, window.along * length + window.wideMm / 2),
    }))
    .sort((a, b) => a.from - b.from);
  let end = 0;
  return all.flatMap((o) => {
    const from = Math.max(o.from, end);
    end = Math.max(end, o.to);
    return o.to > from ? [{ ...o, from }] : [];
  });
}

const NO_LIGHT = { x0: 0, y0: 0, x1: 0, y1: 0, radius: 0, ux: 0, uy: 0, half: 0, cosHalf: 1, sinHalf: 0 };
const halfOf = (half: number) => ({ half, cosHalf: maths.cos(half), sinHalf: maths.sin(half) });

/** A study as points look at it. Walls without a length are left out. */
export function sceneOf({ things, view }: LightStudy): Scene {
  const edges: number[] = [];
  const edgeColours: number[] = [];
  const rounds: number[] = [];
  const roundColours: number[] = [];
  const openings: number[] = [];
  const sources: Source[] = [];
  const solid = (corners: readonly { x: number; y: number }[], colour: readonly number[]) => {
    const ring = turnedRight(corners);
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      if (a.x === b.x && a.y === b.y) return;
      edges.push(a.x, a.y, b.x, b.y);
      edgeColours.push(...colour);
    });
  };
  for (const t of things) {
    switch (t.is) {
      case 'lamp':
        sources.push({ ...NO_LIGHT, ...t, kind: t.is, x0: t.at.x, y0: t.at.y, radius: t.radiusMm });
        break;
      case 'sun':
        sources.push({
          ...NO_LIGHT,
          ...t,
          kind: t.is,
          ux: maths.cos(t.from * DEGREE),
          uy: -maths.sin(t.from * DEGREE),
          ...halfOf((t.wide * DEGREE) / 2),
        });
        break;
      case 'sky':
        // in a plan it is all round, in a section above
        sources.push({
          ...NO_LIGHT,
          ...t,
          kind: t.is,
          ux: 0,
          uy: -1,
          ...halfOf(view === 'plan' ? Math.PI : Math.PI / 2),
        });
        break;
      case 'round':
        if (t.radiusMm > 0) rounds.push(t.at.x, t.at.y, t.radiusMm);
        if (t.radiusMm > 0) roundColours.push(...t.colour);
        break;
      case 'outline':
        solid(t.corners, t.colour);
        break;
      case 'wall': {
        const length = hypot(t.to.x - t.from.x, t.to.y - t.from.y);
        if (length === 0) break;
        const [ux, uy] = [(t.to.x - t.from.x) / length, (t.to.y - t.from.y) / length];
        const at = (along: number, across: number) => ({
          x: t.from.x + along * ux - across * uy,
          y: t.from.y + along * uy + across * ux,
        });
        const thick = Math.max(0.01, t.thickMm) / 2;
        const piece = (from: number, to: number) =>
          to > from && solid([at(from, -thick), at(to, -thick), at(to, thick), at(from, thick)], t.colour);
        let begun = 0;
        for (const { window, from, to } of openingsOf(t, length, things)) {
          piece(begun, from);
          begun = to;
          // the light stands at the outer face, and falls to the right of its line from end to end
          const out = window.turned ? thick : -thick;
          const ends = [at(from, out), at(to, out)];
          const [a, b] = window.turned ? ends.reverse() : ends;
          openings.push(a.x, a.y, b.x, b.y);
          sources.push({ ...NO_LIGHT, ...window, kind: 'window', x0: a.x, y0: a.y, x1: b.x, y1: b.y });
        }
        piece(begun, length);
        break;
      }
      case 'window':
        break;
    }
  }
  return {
    edges: Float64Array.from(edges),
    rounds: Float64Array.from(rounds),
    edgeColours: Float64Array.from(edgeColours),
    roundColours: Float64Array.from(roundColours),
    openings: Float64Array.from(openings),
    sources,
  };
}
