import { hypot, maths } from '@/core/maths/maths';
import type { Place } from '@/core/study/register';
import { LENGTHS, type LengthUnit, type LightStudy, type StudyThing } from './lightStudy';

/** Drawing on the board of a light study: what can be pulled, what lies under the hand, where it snaps. Lengths in mm. */

const DEGREE = Math.PI / 180;

/** A place by which a thing can be pulled. */
export interface Handle {
  readonly name: string;
  readonly at: Place;
}

/** Where a sun is drawn: as far from the middle of the board as leaves it inside. */
export function sunPlace({ widthMm, heightMm }: LightStudy, from: number): Place {
  const far = 0.46 * Math.min(widthMm, heightMm);
  return {
    x: widthMm / 2 + far * maths.cos(from * DEGREE),
    y: heightMm / 2 - far * maths.sin(from * DEGREE),
  };
}

/** Ends of a window on the middle line of its wall; undefined where it has none. */
export function windowEnds(
  { things }: LightStudy,
  window: Extract<StudyThing, { is: 'window' }>,
): [Place, Place] | undefined {
  const wall = things.find((t) => t.id === window.wall);
  if (wall?.is !== 'wall') return undefined;
  const { from, to } = wall;
  const length = hypot(to.x - from.x, to.y - from.y);
  if (length === 0) return undefined;
  const at = (along: number): Place => {
    const t = Math.max(0, Math.min(1, along / length));
    return { x: from.x + t * (to.x - from.x), y: from.y + t * (to.y - from.y) };
  };
  const middle = window.along * length;
  return [at(middle - window.wideMm / 2), at(middle + window.wideMm / 2)];
}

/** By what a thing can be pulled. */
export function handlesOf(study: LightStudy, thing: StudyThing): Handle[] {
  switch (thing.is) {
    case 'lamp':
    case 'round':
      return [
        { name: 'at', at: thing.at },
        { name: 'rim', at: { x: thing.at.x + thing.radiusMm, y: thing.at.y } },
      ];
    case 'sun':
      return [{ name: 'from', at: sunPlace(study, thing.from) }];
    case 'sky':
      return [];
    case 'wall':
      return [
        { name: 'from', at: thing.from },
        { name: 'to', at: thing.to },
      ];
    case 'window': {
      const ends = windowEnds(study, thing);
      if (!ends) return [];
      const [a, b] = ends;
      return [
        { name: 'along', at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } },
        { name: 'end', at: b },
      ];
    }
    case 'outline':
      return thing.corners.map((at, i) => ({ name: String(i), at }));
  }
}

const shifted = ({ x, y }: Place, by: Place): Place => ({ x: x + by.x, y: y + by.y });

/** A thing moved as a whole. */
export function movedBy(thing: StudyThing, by: Place): StudyThing {
  switch (thing.is) {
    case 'lamp':
    case 'round':
      return { ...thing, at: shifted(thing.at, by) };
    case 'wall':
      return { ...thing, from: shifted(thing.from, by), to: shifted(thing.to, by) };
    case 'outline':
      return { ...thing, corners: thing.corners.map((p) => shifted(p, by)) };
    default:
      return thing;
  }
}

/** How far along a wall a place lies, as a share. */
export function alongWall(wall: Extract<StudyThing, { is: 'wall' }>, p: Place): number {
  const [dx, dy] = [wall.to.x - wall.from.x, wall.to.y - wall.from.y];
  const length = dx * dx + dy * dy;
  if (length === 0) return 0;
  return Math.max(0, Math.min(1, ((p.x - wall.from.x) * dx + (p.y - wall.from.y) * dy) / length));
}

/** A thing whose handle was pulled to a place. */
export function pulled(study: LightStudy, thing: StudyThing, handle: string, to: Place): StudyThing {
  switch (thing.is) {
    case 'lamp':
    case 'round':
      if (handle === 'at') return { ...thing, at: to };
      return { ...thing, radiusMm: hypot(to.x - thing.at.x, to.y - thing.at.y) };
    case 'sun': {
      const angle = maths.atan2(study.heightMm / 2 - to.y, to.x - study.widthMm / 2) / DEGREE;
      return { ...thing, from: Math.round(angle < 0 ? angle + 360 : angle) % 360 };
    }
    case 'wall':
      return handle === 'from' ? { ...thing, from: to } : { ...thing, to };
    case 'window': {
      const wall = study.things.find((t) => t.id === thing.wall);
      if (wall?.is !== 'wall') return thing;
      const along = alongWall(wall, to);
      if (handle === 'along') return { ...thing, along };
      const length = hypot(wall.to.x - wall.from.x, wall.to.y - wall.from.y);
      return { ...thing, wideMm: Math.max(1, 2 * Math.abs(along - thing.along) * length) };
    }
    case 'outline':
      return { ...thing, corners: thing.corners.map((p, i) => (String(i) === handle ? to : p)) };
    default:
      return thing;
  }
}

/** How far a place is from a line between two others. */
function toLine(p: Place, a: Place, b: Place): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(1e-12, dx * dx + dy * dy)));
  return hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

/** How far a place is from a thing; 0 on it, Infinity of what has no place. */
export function distanceTo(study: LightStudy, thing: StudyThing, p: Place): number {
  switch (thing.is) {
    case 'lamp':
    case 'round':
      return Math.max(0, hypot(p.x - thing.at.x, p.y - thing.at.y) - thing.radiusMm);
    case 'sun': {
      const { x, y } = sunPlace(study, thing.from);
      return hypot(p.x - x, p.y - y);
    }
    case 'sky':
      return Infinity;
    case 'wall':
      return Math.max(0, toLine(p, thing.from, thing.to) - thing.thickMm / 2);
    case 'window': {
      const ends = windowEnds(study, thing);
      return ends ? toLine(p, ...ends) : Infinity;
    }
    case 'outline': {
      const { corners } = thing;
      let inside = false;
      let least = Infinity;
      corners.forEach((a, i) => {
        const b = corners[(i + 1) % corners.length];
        least = Math.min(least, toLine(p, a, b));
        if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
      });
      return inside ? 0 : least;
    }
  }
}

/** What lies under the hand, the one drawn last first; windows before the walls they are in. */
export function under(study: LightStudy, p: Place, withinMm: number): StudyThing | undefined {
  const near = study.things.filter((thing) => distanceTo(study, thing, p) <= withinMm);
  return near.findLast((t) => t.is === 'window') ?? near.at(-1);
}

/** The wall nearest to a place, within a distance. */
export function nearestWall(
  study: LightStudy,
  p: Place,
  withinMm: number,
): Extract<StudyThing, { is: 'wall' }> | undefined {
  let best: Extract<StudyThing, { is: 'wall' }> | undefined;
  let least = withinMm;
  for (const thing of study.things) {
    if (thing.is !== 'wall') continue;
    const far = distanceTo(study, thing, p);
    if (far <= least) [best, least] = [thing, far];
  }
  return best;
}

/** Steps of a net that suit a unit, in that unit. */
const STEPS: Record<LengthUnit, number> = { mm: 5, cm: 1, m: 0.1, in: 0.5, ft: 0.25 };
/** Distance of the lines of a board's net, mm: so coarse that it has no more than some hundred. */
export function netMm({ unit, widthMm }: LightStudy): number {
  let step = STEPS[unit] * LENGTHS[unit];
  while (widthMm / step > 120) step *= 10;
  return step;
}

/**
 * Where a hand snaps: to what others end in, before the net.
 * @param except the thing that is drawn
 */
export function snapped(study: LightStudy, p: Place, withinMm: number, except?: number): Place {
  let best: Place | undefined;
  let least = withinMm;
  for (const thing of study.things) {
    if (thing.id === except || thing.is === 'sun' || thing.is === 'window') continue;
    for (const { name, at } of handlesOf(study, thing)) {
      const far = hypot(at.x - p.x, at.y - p.y);
      if (name !== 'rim' && far <= least) [best, least] = [at, far];
    }
  }
  if (best) return best;
  const step = netMm(study);
  const [x, y] = [Math.round(p.x / step) * step, Math.round(p.y / step) * step];
  return { x: Math.abs(x - p.x) <= withinMm ? x : p.x, y: Math.abs(y - p.y) <= withinMm ? y : p.y };
}

/** A place brought to the nearest of eight directions from another. */
export function straightFrom(from: Place, p: Place): Place {
  const eighth = Math.PI / 4;
  const angle = Math.round(maths.atan2(p.y - from.y, p.x - from.x) / eighth) * eighth;
  const [c, s] = [maths.cos(angle), maths.sin(angle)];
  const far = (p.x - from.x) * c + (p.y - from.y) * s;
  return { x: from.x + far * c, y: from.y + far * s };
}

/** A length in a unit, in words. */
export function lengthWords(mm: number, unit: LengthUnit): string {
  const value = mm / LENGTHS[unit];
  return `${value >= 100 ? Math.round(value) : value >= 10 ? value.toFixed(1) : value.toFixed(2)} ${unit}`;
}
