'use client';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import {
  alongWall,
  handlesOf,
  movedBy,
  nearestWall,
  pulled,
  snapped,
  straightFrom,
  under,
} from '@/core/study/light/boardDrawing';
import type { LightStudy, StudyThing } from '@/core/study/light/lightStudy';
import type { Place } from '@/core/study/register';
import { placeIn, useHand } from '@/room/parts/useHand';
import { DAYLIGHT, LAMPLIGHT, PLASTER, useLight, type BoardAct, type NewThing } from './lightStore';

/** Within so many CSS pixels the hand means a handle, a thing, or a place to snap to; and has not moved. */
const NEAR_PX = 9;
const SNAP_PX = 7;
const SAME_PX = 4;

interface Board {
  readonly study: LightStudy;
  readonly toBoard: (p: Place) => Place;
  readonly scale: number;
}

/** What is being drawn, and the places it has. */
export interface Drawing {
  readonly thing: StudyThing;
  readonly way: readonly Place[];
}

/** What a act draws from one place to another; undefined where it is none yet. */
function drawn(act: BoardAct, study: LightStudy, way: readonly Place[]): NewThing | undefined {
  const [from, to = from] = way;
  const far = Math.hypot(to.x - from.x, to.y - from.y);
  const room = study.widthMm;
  switch (act) {
    case 'lamp':
      return { is: 'lamp', at: from, radiusMm: far || 0.01 * room, strength: 1, colour: LAMPLIGHT };
    case 'round':
      return far > 0 ? { is: 'round', at: from, radiusMm: far, colour: PLASTER } : undefined;
    case 'wall':
      return far > 0 ? { is: 'wall', from, to, thickMm: 0.03 * room, colour: PLASTER } : undefined;
    case 'outline':
      return way.length > 2 ? { is: 'outline', corners: [...way], colour: PLASTER } : undefined;
    case 'window': {
      const wall = nearestWall(study, from, 0.03 * room);
      if (!wall) return undefined;
      const length = Math.hypot(wall.to.x - wall.from.x, wall.to.y - wall.from.y);
      const [a, b] = [alongWall(wall, from), alongWall(wall, to)];
      const wideMm = far > 0 ? Math.abs(b - a) * length : 0.25 * length;
      // its light falls to the side where the middle of the board is
      const middle = { x: study.widthMm / 2 - wall.from.x, y: study.heightMm / 2 - wall.from.y };
      const turned = (wall.to.x - wall.from.x) * middle.y - (wall.to.y - wall.from.y) * middle.x < 0;
      const along = far > 0 ? (a + b) / 2 : a;
      return { is: 'window', wall: wall.id, along, wideMm: Math.max(1, wideMm), turned, strength: 2, colour: DAYLIGHT };
    }
    default:
      return undefined;
  }
}

/** The hand on the board: it pulls and moves what is there, and draws what the act is. @returns what is being drawn */
export function useBoardHand(svg: RefObject<SVGSVGElement | null>, active: boolean, board: Board): Drawing | undefined {
  const { study, toBoard, scale } = board;
  const act = useLight((s) => s.act);
  const [way, setWay] = useState<readonly Place[]>([]);
  const hand = useRef<{
    down: boolean;
    way: Place[];
    at: Place;
    pulls?: { id: number; handle?: string; last: Place };
  }>({ down: false, way: [], at: { x: 0, y: 0 } });
  const { set, setThing, add } = useLight.getState();

  const put = (next: Place[]) => {
    hand.current.way = next;
    setWay(next);
  };
  const placeOf = (event: PointerEvent, free = false): Place => {
    const p = toBoard(placeIn(svg.current!, event));
    const from = hand.current.way.at(-1);
    if (event.shiftKey && from && !free) return straightFrom(from, p);
    return free ? p : snapped(study, p, SNAP_PX / scale, hand.current.pulls?.id);
  };
  const finish = (all: readonly Place[]) => {
    put([]);
    const thing = act && all.length > 0 ? drawn(act, study, all) : undefined;
    if (thing && add(thing) !== undefined && act !== 'wall') set({ act: 'pull' });
  };
  const far = (event: PointerEvent): boolean => {
    const { x, y } = placeIn(svg.current!, event);
    return Math.hypot(x - hand.current.at.x, y - hand.current.at.y) > SAME_PX;
  };

  useHand(svg, active, {
    down(event) {
      if (event.button !== 0 || !act) return false;
      const now = hand.current;
      const p = toBoard(placeIn(svg.current!, event));
      const twice = act === 'outline' && now.way.length > 2 && !far(event);
      now.at = placeIn(svg.current!, event);
      now.down = true;
      if (act === 'sight') set({ sight: p });
      else if (act === 'pull') {
        const chosen = study.things.find((t) => t.id === useLight.getState().chosen);
        const handle =
          chosen &&
          handlesOf(study, chosen).findLast(({ at }) => Math.hypot(at.x - p.x, at.y - p.y) * scale <= NEAR_PX);
        const thing = handle ? chosen : under(study, p, NEAR_PX / scale);
        set({ chosen: thing?.id, sight: undefined });
        // what cannot be moved as a whole goes by its only place
        const only = thing && (thing.is === 'sun' ? 'from' : thing.is === 'window' ? 'along' : undefined);
        now.pulls = thing && { id: thing.id, handle: handle?.name ?? only, last: p };
      } else if (twice) finish(now.way);
      else put(act === 'outline' ? [...now.way, placeOf(event)] : [placeOf(event)]);
      return true;
    },
    move(event) {
      const now = hand.current;
      if (act === 'sight' && now.down) set({ sight: placeOf(event, true) });
      else if (act === 'pull' && now.down && now.pulls) {
        const thing = study.things.find((t) => t.id === now.pulls!.id);
        if (!thing || !far(event)) return true;
        const to = now.pulls.handle ? placeOf(event, thing.is === 'sun') : placeOf(event, true);
        if (now.pulls.handle) setThing(pulled(study, thing, now.pulls.handle, to), 'passing');
        else setThing(movedBy(thing, { x: to.x - now.pulls.last.x, y: to.y - now.pulls.last.y }), 'passing');
        now.pulls.last = to;
      } else if (now.way.length > 0) setWay([...now.way, placeOf(event)]);
      return true;
    },
    up(event) {
      const now = hand.current;
      if (!now.down) return true;
      now.down = false;
      if (act === 'pull' && now.pulls) {
        const thing = study.things.find((t) => t.id === now.pulls!.id);
        if (thing) setThing(thing);
        now.pulls = undefined;
      } else if (act !== 'sight' && act !== 'outline' && now.way.length > 0)
        finish(far(event) ? [...now.way, placeOf(event)] : now.way);
      return true;
    },
  });
  useHotkeys('enter', () => hand.current.way.length > 2 && finish(hand.current.way), { enabled: act === 'outline' });
  useHotkeys(
    'delete, backspace',
    () => {
      const { chosen, remove } = useLight.getState();
      if (chosen !== undefined) remove(chosen);
    },
    { enabled: active },
  );

  // what was begun with another act, or was let go, is not gone on with
  useEffect(
    () => () => {
      hand.current = { down: false, way: [], at: { x: 0, y: 0 } };
      setWay([]);
    },
    [act],
  );

  const thing = act && way.length > 0 ? drawn(act, study, way) : undefined;
  if (!act || way.length === 0) return undefined;
  // an outline has no area before it has three corners: it is shown as what it has
  return { thing: { id: -1, ...(thing ?? { is: 'sky', strength: 0, colour: [0, 0, 0] }) }, way };
}
