'use client';
import { useEffect, useRef } from 'react';
import { handlesOf, lengthWords, netMm } from '@/core/study/light/boardDrawing';
import type { LightStudy } from '@/core/study/light/lightStudy';
import { sceneOf } from '@/core/study/light/scene';
import { sightCones } from '@/core/study/light/sightAngles';
import type { Place } from '@/core/study/register';
import { LightClient } from '@/engine/light/lightClient';
import type { LightSeen } from '@/engine/light/lightMessages';
import type { OverCanvas } from '@/room/easel/feature';
import { pathThrough } from '@/room/parts/useHand';
import { BoardThings } from './BoardThings';
import { boardNow, useLight } from './lightStore';
import { SHADES } from './layShade';
import { useBoardHand } from './useBoardHand';
import styles from './light.module.css';

/** Room round a board that lies beside the canvas, and the share of the view that its sheet takes, CSS pixels. */
const MARGIN = 14;
const BESIDE = 0.62;
/** Most pixels across that a board is worked out at. */
const MOST_PX = 1600;

/** Where a board lies: from its millimetres to CSS pixels of the view, and back. */
interface Laid {
  readonly toPx: (p: Place) => Place;
  readonly toBoard: (p: Place) => Place;
  readonly scale: number;
}

/** Beside the canvas, on a sheet of its own. */
function beside(study: LightStudy, sheet: { width: number; height: number }): Laid {
  const scale = Math.min((sheet.width - 2 * MARGIN) / study.widthMm, (sheet.height - 2 * MARGIN) / study.heightMm);
  const left = (sheet.width - scale * study.widthMm) / 2;
  const top = (sheet.height - scale * study.heightMm) / 2;
  return {
    toPx: ({ x, y }) => ({ x: left + scale * x, y: top + scale * y }),
    toBoard: ({ x, y }) => ({ x: (x - left) / scale, y: (y - top) / scale }),
    scale,
  };
}

/** Over the canvas: the board is as wide as that. */
function over(study: LightStudy, { spec, toScreen, toCanvas }: OverCanvas): Laid {
  const mm = spec.widthMm / study.widthMm;
  const toPx = ({ x, y }: Place) => toScreen({ x: x * mm, y: y * mm });
  const toBoard = (p: Place) => {
    const { x, y } = toCanvas(p);
    return { x: x / mm, y: y / mm };
  };
  const [a, b] = [toPx({ x: 0, y: 0 }), toPx({ x: study.widthMm, y: 0 })];
  return { toPx, toBoard, scale: Math.hypot(b.x - a.x, b.y - a.y) / study.widthMm };
}

/** The drawing board of a light study, beside the canvas or over it. @param drawn whether the hand may draw on it */
export function LightBoard({ drawn, ...canvas }: OverCanvas & { drawn: boolean }) {
  const state = useLight();
  const { laid, look, act, chosen, seen, sight } = state;
  const study = boardNow(state);
  const dpr = window.devicePixelRatio;
  const view = { width: canvas.view.width / dpr, height: canvas.view.height / dpr };
  const sheet = laid === 'beside' ? { width: view.width * BESIDE, height: view.height } : view;
  const place = laid === 'beside' ? beside(study, sheet) : over(study, canvas);
  const width = Math.max(16, Math.min(MOST_PX, Math.round(study.widthMm * place.scale * Math.min(2, dpr))));
  useLightOf(study, width, look);
  const svg = useRef<SVGSVGElement>(null);
  const drawing = useBoardHand(svg, drawn && act !== undefined, { study, ...place });

  const cones = sight ? sightCones(sceneOf(study), sight.x, sight.y) : [];
  const { toPx, scale } = place;
  const corner = toPx({ x: 0, y: 0 });
  const right = toPx({ x: study.widthMm, y: 0 });
  const low = toPx({ x: 0, y: study.heightMm });
  const edge = [corner, right, toPx({ x: study.widthMm, y: study.heightMm }), low];
  const picked = study.things.find((t) => t.id === chosen);
  return (
    <div
      className={laid === 'beside' ? styles.sheet : styles.overSheet}
      style={{ width: sheet.width, height: sheet.height }}
      data-testid="light-board"
    >
      {seen && (
        <Picture
          seen={seen}
          corner={corner}
          right={right}
          low={low}
          laid={laid === 'beside' ? styles.wash : drawn ? styles.washOver : `${styles.washOver} ${styles.guide}`}
        />
      )}
      <svg
        ref={svg}
        role="img"
        aria-label={`Light study in ${study.view}`}
        className={styles.drawing}
        style={drawn && act ? { pointerEvents: 'all', cursor: act === 'pull' ? 'default' : 'crosshair' } : undefined}
      >
        {laid === 'beside' && look === 'shadow' && <Net study={study} toPx={toPx} />}
        <path d={`${pathThrough(edge)}Z`} className={styles.edge} />
        {seen && <Borders seen={seen} study={study} toPx={toPx} />}
        <BoardThings study={study} toPx={toPx} scale={scale} chosen={drawn ? chosen : undefined} />
        {seen && <Shade seen={seen} toPx={toPx} />}
        {sight &&
          cones.map((cone, i) => {
            const from = toPx(sight);
            const reach = Math.min(cone.distance, Math.hypot(study.widthMm, study.heightMm));
            const end = (angle: number) =>
              toPx({ x: sight.x + reach * Math.cos(angle), y: sight.y + reach * Math.sin(angle) });
            // a wide cone is drawn in steps, for its far side is round
            const steps = Math.max(1, Math.ceil((cone.to - cone.from) / 0.2));
            const arc = Array.from({ length: steps + 1 }, (_, k) =>
              end(cone.from + ((cone.to - cone.from) * k) / steps),
            );
            return <path key={i} d={`${pathThrough([from, ...arc])}Z`} className={styles.cone} />;
          })}
        {sight && <circle cx={toPx(sight).x} cy={toPx(sight).y} r={4} className={styles.eye} />}
        {drawing && (
          <BoardThings
            study={{ ...study, things: [drawing.thing] }}
            toPx={toPx}
            scale={scale}
            chosen={drawing.thing.id}
          />
        )}
        {drawing && drawing.way.length > 1 && <Measure way={drawing.way} study={study} toPx={toPx} />}
        {drawn &&
          picked &&
          handlesOf(study, picked).map(({ name, at }) => {
            const { x, y } = toPx(at);
            return <circle key={name} cx={x} cy={y} r={5} className={styles.handle} />;
          })}
      </svg>
    </div>
  );
}

/** Asks for the light of a board whenever it is another. */
function useLightOf(study: LightStudy, width: number, look: 'shadow' | 'light'): void {
  const client = useRef<LightClient>(undefined);
  useEffect(() => {
    const mine = new LightClient((seen) => useLight.getState().set({ seen }));
    client.current = mine;
    return () => mine.dispose();
  }, []);
  useEffect(() => {
    const height = Math.max(1, Math.round((width * study.heightMm) / study.widthMm));
    client.current?.look({ study, width, height, look, shades: SHADES });
  }, [study, width, look]);
}

/** The washes of light and shadow, where the board lies. */
function Picture({
  seen,
  corner,
  right,
  low,
  laid,
}: {
  seen: LightSeen;
  corner: Place;
  right: Place;
  low: Place;
  laid: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, width, height } = seen;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  const matrix = [
    (right.x - corner.x) / width,
    (right.y - corner.y) / width,
    (low.x - corner.x) / height,
    (low.y - corner.y) / height,
    corner.x,
    corner.y,
  ];
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      className={laid}
      style={{ transform: `matrix(${matrix.join(',')})` }}
    />
  );
}

/** A faint net to measure by. */
function Net({ study, toPx }: { study: LightStudy; toPx: (p: Place) => Place }) {
  const step = netMm(study);
  const lines = (along: number) => Array.from({ length: Math.floor(along / step) }, (_, i) => (i + 1) * step);
  const d = [
    ...lines(study.widthMm).map((x) => pathThrough([toPx({ x, y: 0 }), toPx({ x, y: study.heightMm })])),
    ...lines(study.heightMm).map((y) => pathThrough([toPx({ x: 0, y }), toPx({ x: study.widthMm, y })])),
  ].join('');
  return <path d={d} className={styles.net} />;
}

/** Where shadows begin, and half shadows. */
function Borders({ seen, study, toPx }: { seen: LightSeen; study: LightStudy; toPx: (p: Place) => Place }) {
  const path = (lines: LightSeen['borders'][number]['umbra']) =>
    lines
      .map((line) => pathThrough(line.map(([x, y]) => toPx({ x: x * study.widthMm, y: y * study.widthMm }))))
      .join('');
  return seen.borders.map(({ source, umbra, penumbra }) => (
    <g key={source}>
      <path d={path(umbra)} className={styles.umbra} />
      <path d={path(penumbra)} className={styles.penumbra} />
    </g>
  ));
}

/** The light on outlines, piece by piece. */
function Shade({ seen, toPx }: { seen: LightSeen; toPx: (p: Place) => Place }) {
  const { ends, colours } = seen.outlines;
  return Array.from({ length: ends.length / 4 }, (_, i) => (
    <path
      key={i}
      d={pathThrough([toPx({ x: ends[4 * i], y: ends[4 * i + 1] }), toPx({ x: ends[4 * i + 2], y: ends[4 * i + 3] })])}
      stroke={`rgb(${colours.subarray(3 * i, 3 * i + 3).join(' ')})`}
      className={styles.shade}
    />
  ));
}

/** The length of what is drawn, in the unit of the board. */
function Measure({ way, study, toPx }: { way: readonly Place[]; study: LightStudy; toPx: (p: Place) => Place }) {
  const [from, to] = way.slice(-2);
  const at = toPx({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
  return (
    <text x={at.x + 8} y={at.y - 8}>
      {lengthWords(Math.hypot(to.x - from.x, to.y - from.y), study.unit)}
    </text>
  );
}
