'use client';
import { useRef, useState } from 'react';
import { castShadow, shadowOutline, type PerspectiveLight } from '@/core/study/light/castShadow';
import type { Place } from '@/core/study/register';
import type { OverCanvas } from '@/room/easel/feature';
import { pathThrough, placeIn, useHand } from '@/room/parts/useHand';
import { perspectiveNow, useLight } from './lightStore';
import easel from '../easel.module.css';
import styles from './light.module.css';

const NEAR_PX = 12;
/** A pull shorter than this is none, mm. */
const LEAST_MM = 1;

type Pull = (study: PerspectiveLight, to: Place) => PerspectiveLight;

/** What of a study can be pulled, and what becomes of it. */
function pullsOf(study: PerspectiveLight, middle: number): { at: Place; pull: Pull }[] {
  const { light, horizon, plane, things } = study;
  return [
    { at: light.at, pull: (s, at) => ({ ...s, light: { ...s.light, at } }) },
    ...(light.is === 'lamp'
      ? [{ at: light.foot, pull: ((s, foot) => ({ ...s, light: { ...light, at: s.light.at, foot } })) as Pull }]
      : []),
    { at: { x: middle, y: horizon }, pull: (s, { y }) => ({ ...s, horizon: y }) },
    ...(plane
      ? (['from', 'to'] as const).map((end) => ({
          at: plane[end],
          pull: ((s, to) => ({ ...s, plane: { ...plane, [end]: to } })) as Pull,
        }))
      : []),
    ...things.flatMap((thing, i) =>
      thing.flatMap((upright, k) =>
        (['foot', 'top'] as const).map((end) => ({
          at: upright[end],
          pull: ((s, to) => ({
            ...s,
            things: s.things.map((t, n) =>
              n !== i
                ? t
                : t.map((u, m) => {
                    if (m !== k) return u;
                    // it stays upright: top and foot move aside together
                    const other = end === 'foot' ? 'top' : 'foot';
                    return { ...u, [end]: to, [other]: { x: to.x, y: u[other].y } };
                  }),
            ),
          })) as Pull,
        })),
      ),
    ),
  ];
}

/** Shadows in perspective over the canvas, and the hand that sets what casts them. */
export function PerspectiveLayer({ spec, toScreen, toCanvas, drawn }: OverCanvas & { drawn: boolean }) {
  const state = useLight();
  const { setting } = state;
  const study = perspectiveNow(state);
  const svg = useRef<SVGSVGElement>(null);
  const [taking, setTaking] = useState<readonly [Place, Place]>();
  const pulling = useRef<Pull>(undefined);
  const middle = spec.widthMm / 2;
  const put = (perspective: PerspectiveLight, kept: boolean) =>
    kept ? useLight.getState().change({ perspective }) : useLight.setState({ perspective });

  useHand(svg, drawn && setting !== undefined, {
    down(event) {
      if (event.button !== 0) return false;
      const at = placeIn(svg.current!, event);
      const near = pullsOf(study, middle).find(({ at: p }) => {
        const s = toScreen(p);
        return Math.hypot(s.x - at.x, s.y - at.y) <= NEAR_PX;
      });
      pulling.current = near?.pull;
      const p = toCanvas(at);
      if (!near && setting === 'light') {
        pulling.current = (s, to) => ({ ...s, light: { ...s.light, at: to } });
        put(pulling.current(study, p), false);
      }
      if (!pulling.current) setTaking([p, p]);
      return true;
    },
    move(event) {
      const p = toCanvas(placeIn(svg.current!, event));
      if (pulling.current) put(pulling.current(study, p), false);
      else if (taking) setTaking([taking[0], p]);
      return true;
    },
    up(event) {
      const p = toCanvas(placeIn(svg.current!, event));
      if (pulling.current) put(pulling.current(study, p), true);
      else if (taking && Math.hypot(p.x - taking[0].x, p.y - taking[0].y) > LEAST_MM) {
        const [from] = taking;
        if (setting === 'plane') put({ ...study, plane: { from, to: p } }, true);
        else {
          // from foot to top, whichever way it was pulled, and upright
          const [low, high] = [Math.max(from.y, p.y), Math.min(from.y, p.y)];
          const upright = { foot: { x: from.x, y: low }, top: { x: from.x, y: high } };
          const { chosen, set } = useLight.getState();
          const known = chosen !== undefined && study.things[chosen];
          const things = known
            ? study.things.map((t, i) => (i === chosen ? [...t, upright] : t))
            : [...study.things, [upright]];
          put({ ...study, things }, true);
          set({ chosen: known ? chosen : things.length - 1 });
        }
      }
      pulling.current = undefined;
      setTaking(undefined);
      return true;
    },
  });

  const { light, horizon, plane, things } = study;
  const path = (points: readonly Place[]) => pathThrough(points.map(toScreen));
  const line = (points: readonly Place[], className = easel.markLine) => (
    <>
      <path d={path(points)} className={easel.markHalo} />
      <path d={path(points)} className={className} />
    </>
  );
  const lampAt = toScreen(light.at);
  return (
    <svg
      ref={svg}
      className={easel.marksOver}
      data-testid="light-perspective"
      style={drawn && setting ? { pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' } : undefined}
    >
      <path
        d={path([
          { x: -spec.widthMm, y: horizon },
          { x: 2 * spec.widthMm, y: horizon },
        ])}
        className={styles.horizon}
      />
      {plane && line([plane.from, plane.to])}
      {things.map((thing, i) => {
        const shadow = shadowOutline(study, thing);
        return (
          <g key={i}>
            {typeof shadow !== 'string' && (
              <path
                d={`${path(shadow)}${thing.length > 1 ? 'Z' : ''}`}
                className={thing.length > 1 ? styles.cast : styles.castLine}
              />
            )}
            {drawn &&
              thing.map((upright, k) => {
                const cast = castShadow(study, upright);
                return (
                  typeof cast !== 'string' && (
                    <path key={k} d={path([light.at, upright.top, cast.tip])} className={styles.ray} />
                  )
                );
              })}
            {thing.map(({ foot, top }, k) => (
              <g key={k}>{line([foot, top])}</g>
            ))}
          </g>
        );
      })}
      {taking && line(setting === 'plane' ? taking : [taking[0], { x: taking[0].x, y: taking[1].y }])}
      {drawn && light.is === 'lamp' && <path d={path([light.at, light.foot])} className={styles.ray} />}
      <circle cx={lampAt.x} cy={lampAt.y} r={8} className={styles.bulb} />
      {drawn &&
        setting &&
        pullsOf(study, middle).map(({ at }, i) => {
          const { x, y } = toScreen(at);
          return <circle key={i} cx={x} cy={y} r={5} className={styles.handle} />;
        })}
    </svg>
  );
}
