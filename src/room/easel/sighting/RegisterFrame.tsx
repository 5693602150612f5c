'use client';
import { useEffect, useRef } from 'react';
import { frameCorners, wholeFrame, type CanvasSize, type Place, type Register } from '@/core/study/register';
import { useSight } from './sightStore';
import { placeIn, useHand } from '@/room/parts/useHand';
import styles from './sighting.module.css';

/** Smallest frame, pixels of the photo. */
const LEAST_PX = 24;

/**
 * The frame of the photo that the canvas shows: pulled inside it moves, pulled at a corner it grows about its middle,
 * pulled at the place above it turns.
 */
export function RegisterFrame({
  photo,
  width,
  height,
  canvas,
  toScreen,
  toPhoto,
}: {
  photo: string;
  width: number;
  height: number;
  canvas: CanvasSize;
  toScreen: (p: Place) => Place;
  toPhoto: (p: Place) => Place;
}) {
  const { register, setRegister } = useSight();
  const mine = register?.photo === photo ? register : undefined;
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => {
    if (!mine) setRegister(wholeFrame(photo, width, height, canvas));
  }, [mine, photo, width, height, canvas, setRegister]);

  const held = useRef<{ what: string; from: Place; at: Register } | undefined>(undefined);
  const place = (event: PointerEvent) => toPhoto(placeIn(svg.current!, event));
  useHand(svg, true, {
    down(event) {
      const what = (event.target as Element).getAttribute('data-part');
      if (!what || !mine) return false;
      held.current = { what, from: place(event), at: mine };
      return true;
    },
    move(event) {
      if (!held.current) return false;
      const { what, from, at } = held.current;
      const p = place(event);
      if (what === 'frame') setRegister({ ...at, x: at.x + p.x - from.x, y: at.y + p.y - from.y });
      else if (what === 'corner') {
        const grown = Math.hypot(p.x - at.x, p.y - at.y) / Math.max(1, Math.hypot(from.x - at.x, from.y - at.y));
        setRegister({ ...at, widthPx: Math.max(LEAST_PX, at.widthPx * grown) });
      } else {
        const angle = (q: Place) => Math.atan2(q.y - at.y, q.x - at.x);
        setRegister({ ...at, turn: at.turn + angle(p) - angle(from) });
      }
      return true;
    },
    up() {
      const was = held.current !== undefined;
      held.current = undefined;
      return was;
    },
  });

  const corners = mine ? frameCorners(mine, canvas).map(toScreen) : [];
  const top =
    corners.length > 0 ? { x: (corners[0].x + corners[1].x) / 2, y: (corners[0].y + corners[1].y) / 2 } : undefined;
  return (
    <svg ref={svg} className={styles.frameOver} data-testid="register">
      {corners.length > 0 && (
        <polygon
          points={corners.map(({ x, y }) => `${x},${y}`).join(' ')}
          data-part="frame"
          className={styles.frameLine}
        />
      )}
      {corners.map(({ x, y }, i) => (
        <circle key={i} cx={x} cy={y} r={6} data-part="corner" className={styles.guideHandle} />
      ))}
      {top && <circle cx={top.x} cy={top.y} r={6} data-part="turn" className={styles.guideHandle} />}
    </svg>
  );
}
