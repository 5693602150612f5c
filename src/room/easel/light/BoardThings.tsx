'use client';
import { windowEnds, sunPlace } from '@/core/study/light/boardDrawing';
import type { LightStudy, StudyThing } from '@/core/study/light/lightStudy';
import { linearToHex } from '@/core/colour/colorimetry';
import type { Place } from '@/core/study/register';
import { pathThrough } from '@/room/parts/useHand';
import styles from './light.module.css';

type ToPx = (p: Place) => Place;

/** Corners of a wall, round about. */
function wallCorners({ from, to, thickMm }: Extract<StudyThing, { is: 'wall' }>): Place[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [nx, ny] = [(-(to.y - from.y) / length) * (thickMm / 2), ((to.x - from.x) / length) * (thickMm / 2)];
  return [
    { x: from.x - nx, y: from.y - ny },
    { x: to.x - nx, y: to.y - ny },
    { x: to.x + nx, y: to.y + ny },
    { x: from.x + nx, y: from.y + ny },
  ];
}

/** A lamp, a wall or whatever stands on a board, as lines. */
function Thing({ thing, study, toPx, scale }: { thing: StudyThing; study: LightStudy; toPx: ToPx; scale: number }) {
  const closed = (corners: readonly Place[]) => `${pathThrough(corners.map(toPx))}Z`;
  switch (thing.is) {
    case 'lamp': {
      const { x, y } = toPx(thing.at);
      const r = Math.max(4, thing.radiusMm * scale);
      return (
        <g className={styles.lamp}>
          <circle cx={x} cy={y} r={r} fill={linearToHex(thing.colour)} />
          {[0, 1, 2, 3, 4, 5, 6, 7].map((k) => {
            const [c, s] = [Math.cos((k * Math.PI) / 4), Math.sin((k * Math.PI) / 4)];
            return <path key={k} d={`M${x + (r + 3) * c} ${y + (r + 3) * s}L${x + (r + 7) * c} ${y + (r + 7) * s}`} />;
          })}
        </g>
      );
    }
    case 'sun': {
      const at = toPx(sunPlace(study, thing.from));
      const middle = toPx({ x: study.widthMm / 2, y: study.heightMm / 2 });
      const way = { x: at.x + (middle.x - at.x) * 0.16, y: at.y + (middle.y - at.y) * 0.16 };
      return (
        <g className={styles.lamp}>
          <path d={pathThrough([at, way])} />
          <circle cx={at.x} cy={at.y} r={9} fill={linearToHex(thing.colour)} />
        </g>
      );
    }
    case 'sky':
      return null;
    case 'wall':
      return <path d={closed(wallCorners(thing))} fill={linearToHex(thing.colour)} className={styles.solid} />;
    case 'window': {
      const ends = windowEnds(study, thing);
      const wall = study.things.find((t) => t.id === thing.wall);
      if (!ends || wall?.is !== 'wall') return null;
      return (
        <path
          d={closed(wallCorners({ ...wall, from: ends[0], to: ends[1] }))}
          fill={linearToHex(thing.colour)}
          className={styles.window}
        />
      );
    }
    case 'round': {
      const { x, y } = toPx(thing.at);
      return (
        <circle cx={x} cy={y} r={thing.radiusMm * scale} fill={linearToHex(thing.colour)} className={styles.solid} />
      );
    }
    case 'outline':
      return <path d={closed(thing.corners)} fill={linearToHex(thing.colour)} className={styles.solid} />;
  }
}

/** All that stands on a board; windows over the walls that they open. @param scale CSS pixels of a millimetre */
export function BoardThings({
  study,
  toPx,
  scale,
  chosen,
}: {
  study: LightStudy;
  toPx: ToPx;
  scale: number;
  chosen: number | undefined;
}) {
  const order = (t: StudyThing) => (t.is === 'lamp' || t.is === 'sun' ? 2 : t.is === 'window' ? 1 : 0);
  return [...study.things]
    .sort((a, b) => order(a) - order(b))
    .map((thing) => (
      <g key={thing.id} className={thing.id === chosen ? styles.chosen : undefined}>
        <Thing thing={thing} study={study} toPx={toPx} scale={scale} />
      </g>
    ));
}
