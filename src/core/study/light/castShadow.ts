import { z } from '@/core/schema';
import { hypot } from '@/core/maths/maths';
import type { Place } from '@/core/study/register';

/**
 * Cast shadows in perspective, constructed on the picture as on a drawing board: the shadow of the top of an upright thing
 * on level ground lies where the ray from the light through the top meets the line from the foot of the light through
 * the foot of the thing. Uprights stay upright in the picture (one or two vanishing points). All places are on the
 * canvas, mm, y downwards.
 */

const place = z.object({ x: z.number(), y: z.number() });
const upright = z.object({ foot: place, top: place });

export const perspectiveLightSchema = z.object({
  light: z.discriminatedUnion('is', [
    z.object({ is: z.literal('lamp'), at: place, foot: place }),
    /** The vanishing point of its rays: the sun itself where it is before us; below the horizon where it is behind us. */
    z.object({ is: z.literal('sun'), at: place }),
  ]),
  /** How high the eye is on the picture, mm from its upper edge. */
  horizon: z.number(),
  /** Each thing as uprights, from one end to the other: what lies between them stands too. */
  things: z.array(z.array(upright).min(1)).max(60),
  /** Foot of an upright plane that shadows climb: a line on the ground. */
  plane: z.object({ from: place, to: place }).optional(),
});
export type PerspectiveLight = z.infer<typeof perspectiveLightSchema>;
export type Upright = z.infer<typeof upright>;

/** Where two lines meet; undefined where they are parallel. */
function meet(a: Place, b: Place, c: Place, d: Place): Place | undefined {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y];
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 1e-9 * (hypot(ux, uy) * hypot(vx, vy) + 1e-12)) return undefined;
  const t = ((c.x - a.x) * vy - (c.y - a.y) * vx) / det;
  return { x: a.x + t * ux, y: a.y + t * uy };
}

/** Foot of a light: what the lines of shadows on the ground go through. */
const footOf = ({ light, horizon }: PerspectiveLight): Place =>
  light.is === 'lamp' ? light.foot : { x: light.at.x, y: horizon };

/** The shadow of one upright. */
export interface CastShadow {
  /** From the foot along the ground, and, where it climbs, up the plane. */
  readonly line: readonly Place[];
  /** Its end: the shadow of the top; and where that would lie if nothing stood in its way. */
  readonly tip: Place;
  readonly onGround: Place;
  /** Where it leaves the ground. */
  readonly turn?: Place;
}

/** Why a thing has no shadow that could be drawn. */
export type NoShadow = 'taller than the light' | 'at the foot of the light' | 'under the horizon';

/** Whether q lies beyond p, as seen from a. */
const beyond = (a: Place, p: Place, q: Place) => (q.x - p.x) * (p.x - a.x) + (q.y - p.y) * (p.y - a.y) > 0;

/** How near to the upright line through the light a thing is moved to both sides of it, mm. */
const ASIDE = 0.01;

/** The shadow of an upright, on the ground and where it stands in its way up a plane. */
export function castShadow(study: PerspectiveLight, upright: Upright): CastShadow | NoShadow {
  if (Math.abs(upright.foot.x - footOf(study).x) > ASIDE / 2) return asideOfLight(study, upright);
  // right before or behind the light all lines are one: the shadow lies between those of its neighbours
  const moved = (by: number): Upright => ({
    foot: { x: upright.foot.x + by, y: upright.foot.y },
    top: { x: upright.top.x + by, y: upright.top.y },
  });
  const [a, b] = [asideOfLight(study, moved(ASIDE)), asideOfLight(study, moved(-ASIDE))];
  if (typeof a === 'string') return a;
  if (typeof b === 'string') return b;
  const between = (p: Place, q: Place): Place => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
  return {
    line: a.line.length === b.line.length ? a.line.map((p, i) => between(p, b.line[i])) : a.line,
    tip: between(a.tip, b.tip),
    onGround: between(a.onGround, b.onGround),
    ...(a.turn && b.turn && { turn: between(a.turn, b.turn) }),
  };
}

function asideOfLight(study: PerspectiveLight, { foot, top }: Upright): CastShadow | NoShadow {
  const { light, horizon, plane } = study;
  const away = footOf(study);
  // the rays of a sun behind us come towards its point, all others leave it
  const behind = light.is === 'sun' && light.at.y > horizon;
  if (foot.y <= horizon) return 'under the horizon';
  if (hypot(foot.x - away.x, foot.y - away.y) < 2 * ASIDE) return 'at the foot of the light';
  const tip = meet(light.at, top, away, foot);
  // what meets over the horizon does so behind us: the ray of the top rises
  if (!tip || tip.y <= horizon) return 'taller than the light';
  const falls = behind
    ? !beyond(away, foot, tip) && (tip.x - away.x) * (foot.x - away.x) + (tip.y - away.y) * (foot.y - away.y) > 0
    : beyond(away, foot, tip) && beyond(light.at, top, tip);
  if (!falls) return 'taller than the light';
  if (plane) {
    const turn = meet(foot, tip, plane.from, plane.to);
    const onTheWay = turn && (turn.x - foot.x) * (turn.x - tip.x) + (turn.y - foot.y) * (turn.y - tip.y) < 0;
    const onPlane =
      turn && (turn.x - plane.from.x) * (turn.x - plane.to.x) + (turn.y - plane.from.y) * (turn.y - plane.to.y) <= 0;
    if (turn && onTheWay && onPlane) {
      // from here on it stands upright, until the ray of the top
      const up = meet(light.at, top, turn, { x: turn.x, y: turn.y - 1 });
      if (up) return { line: [foot, turn, up], tip: up, onGround: tip, turn };
    }
  }
  return { line: [foot, tip], tip, onGround: tip };
}

/** The outline of a thing's shadow; one line for a single upright; undefined where a part of it has none. */
export function shadowOutline(study: PerspectiveLight, thing: readonly Upright[]): readonly Place[] | NoShadow {
  const shadows: CastShadow[] = [];
  for (const upright of thing) {
    const shadow = castShadow(study, upright);
    if (typeof shadow === 'string') return shadow;
    shadows.push(shadow);
  }
  if (shadows.length === 1) return shadows[0].line;
  const outline = thing.map(({ foot }) => foot);
  // back over the tips; where the shadow begins or ceases to climb, its border turns on the foot of the plane
  for (let i = shadows.length - 1; i >= 0; i--) {
    const shadow = shadows[i];
    if (i === shadows.length - 1 && shadow.turn) outline.push(shadow.turn);
    outline.push(shadow.tip);
    const before = shadows[i - 1];
    if (before && study.plane && Boolean(before.turn) !== Boolean(shadow.turn)) {
      const { from, to } = study.plane;
      const bend = meet(shadow.onGround, before.onGround, from, to);
      if (bend) outline.push(bend);
    }
    if (i === 0 && shadow.turn) outline.push(shadow.turn);
  }
  return outline;
}
