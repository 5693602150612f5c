'use client';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Place } from '@/core/study/register';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { cssMatrix, moveCommand, pulled, sidesOf, type Handle } from './movePiece';
import { MESH_SIDE, meshOver, movedLayers, MOVES, SELECTS, usePieces, type Corner } from './pieceStore';
import { pathThrough, placeIn, useHand } from '@/room/parts/useHand';
import easel from '../easel.module.css';
import styles from './pieces.module.css';

/** How far a lasso goes before it gets another corner, CSS pixels; a double click may be apart; a handle is met from. */
const STEP_PX = 3;
const SAME_PX = 4;
const GRIP_PX = 14;
const TURN_PX = 30;

const round = (v: number) => Math.round(v * 100) / 100;
const pair = ({ x, y }: Place): [number, number] => [round(x), round(y)];

/** Brings what was moved to where it is. */
export function settlePiece(): void {
  const { moving, way, copy, along, drop } = usePieces.getState();
  const { bench, apply } = useEasel.getState();
  if (moving && bench && (way === 'free' || way === 'corners' || way === 'mesh')) {
    const command = moveCommand(moving, way, movedLayers(bench, along), copy);
    if (command) apply(command);
  }
  drop();
}

/** What is selected, and pieces while they are moved: over the canvas, with the hand that does it. */
export function PieceLayer({ toScreen, toCanvas }: { toScreen: (p: Place) => Place; toCanvas: (p: Place) => Place }) {
  const { way, selection, flashed, moving, copy, along } = usePieces();
  const engine = useEasel((s) => s.engine);
  const active = useEasel((s) => s.bench?.activeLayer);
  const serial = useEasel((s) => s.bench?.selection ?? 0);
  const [drawn, setDrawn] = useState<readonly Place[]>([]);
  const svg = useRef<SVGSVGElement>(null);
  const hand = useRef<{
    drawn: Place[];
    down: boolean;
    last: Place;
    handle?: Handle;
    start: Corner;
    from: readonly Corner[];
  }>({ drawn: [], down: false, last: { x: 0, y: 0 }, start: [0, 0], from: [] });

  // the outline follows the selection, whoever changed it
  useEffect(() => {
    if (!engine) return;
    if (serial === 0) {
      usePieces.setState({ selection: [] });
      return;
    }
    let gone = false;
    engine.ask({ of: 'outlines' }).then(
      (outlines) => !gone && usePieces.setState({ selection: outlines }),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [engine, serial]);

  // while all of a layer is moved, it is not seen where it was
  const whole = moving !== undefined && !copy && serial === 0;
  useEffect(() => {
    if (!whole || !engine) return;
    const { bench } = useEasel.getState();
    if (bench) engine.without(movedLayers(bench, usePieces.getState().along));
    return () => engine.without([]);
  }, [whole, engine]);

  const put = (next: Place[]) => {
    hand.current.drawn = next;
    setDrawn(next);
  };
  const add = (p: Place) => put([...hand.current.drawn, toCanvas((hand.current.last = p))]);
  const select = (rest: {
    how: 'rectangle' | 'ellipse' | 'outline' | 'colour';
    from?: [number, number];
    to?: [number, number];
    outline?: [number, number][];
  }) => {
    const { mode, edgeMm, tolerance, touching } = usePieces.getState();
    useEasel.getState().apply({ do: 'select', mode, edgeMm, tolerance, touching, byMm: 1, ...rest });
  };
  const finish = () => {
    const { drawn: places } = hand.current;
    put([]);
    if (way === 'rectangle' || way === 'ellipse') {
      if (places.length === 2 && Math.hypot(places[0].x - places[1].x, places[0].y - places[1].y) > 0.5)
        select({ how: way, from: pair(places[0]), to: pair(places[1]) });
    } else if (places.length > 2) select({ how: 'outline', outline: places.map(pair) });
  };
  /** The handle under a place on the screen. */
  const handleAt = (p: Place): Handle | undefined => {
    const now = usePieces.getState().moving;
    if (!now) return undefined;
    const near = (c: Corner) => {
      const at = toScreen({ x: c[0], y: c[1] });
      return Math.hypot(at.x - p.x, at.y - p.y);
    };
    const nearest = (list: readonly Corner[]) => {
      const far = list.map(near);
      const least = Math.min(...far);
      return least < GRIP_PX ? far.indexOf(least) : -1;
    };
    if (way === 'mesh') {
      const at = nearest(now.mesh);
      return at < 0 ? { what: 'move' } : { what: 'point', at };
    }
    const corner = nearest(now.corners);
    if (corner >= 0) return way === 'corners' ? { what: 'point', at: corner } : { what: 'corner', at: corner };
    if (way === 'corners') return { what: 'move' };
    const side = nearest(sidesOf(now.corners));
    if (side >= 0) return { what: 'side', at: side };
    return near(gripOf(now.corners)) < GRIP_PX ? { what: 'turn' } : { what: 'move' };
  };
  /** The grip for turning stands off the upper side. */
  const gripOf = (corners: readonly Corner[]): Corner => {
    const top = toScreen(placeOf(sidesOf(corners)[0]));
    const low = toScreen(placeOf(sidesOf(corners)[2]));
    const length = Math.hypot(top.x - low.x, top.y - low.y) || 1;
    const p = toCanvas({
      x: top.x + ((top.x - low.x) / length) * TURN_PX,
      y: top.y + ((top.y - low.y) / length) * TURN_PX,
    });
    return [p.x, p.y];
  };

  useHand(svg, way !== undefined, {
    down(event) {
      if (event.button !== 0) return false;
      const p = placeIn(svg.current!, event);
      const at = toCanvas(p);
      const now = hand.current;
      const { apply, bench, parts } = useEasel.getState();
      now.down = true;
      if (MOVES.includes(way)) {
        const held = usePieces.getState().moving;
        if (!held) {
          if (engine && bench) {
            void usePieces
              .getState()
              .lift(engine, movedLayers(bench, usePieces.getState().along))
              .then((any) => {
                if (!any) useEasel.setState({ refused: 'There is nothing on the layer to move.' });
              });
          }
          return true;
        }
        now.handle = handleAt(p);
        now.start = [at.x, at.y];
        now.from = way === 'mesh' ? held.mesh : held.corners;
        return true;
      }
      if (way === 'colour') select({ how: 'colour', from: pair(at) });
      else if (way === 'fill') {
        const { fillBy, tolerance, gapMm, growMm } = usePieces.getState();
        const set = mixtureOf(parts);
        const mixture = Object.keys(set).length > 0 ? set : (bench?.mixture ?? {});
        if (Object.keys(mixture).length === 0)
          useEasel.setState({ refused: 'An area is filled with a mixture: set one out first.' });
        else apply({ do: 'fill', at: pair(at), mixture, by: fillBy, tolerance, gapMm, growMm });
      } else if (way === 'stamp') {
        const { turnJitter, sizeJitter, size } = usePieces.getState();
        apply({
          do: 'stamp',
          at: [pair(at)],
          turnJitter,
          sizeJitter,
          size,
          seed: (bench?.strokes ?? 0) + Math.round(at.x * 97 + at.y * 131),
        });
      } else if (way === 'polygon') {
        const twice = now.drawn.length > 2 && Math.hypot(p.x - now.last.x, p.y - now.last.y) < SAME_PX;
        if (twice) finish();
        else add(p);
      } else {
        now.drawn = [];
        add(p);
      }
      return true;
    },
    move(event) {
      const p = placeIn(svg.current!, event);
      const now = hand.current;
      if (!now.down) return true;
      const at = toCanvas(p);
      const held = usePieces.getState().moving;
      if (held && now.handle) {
        const free = event.shiftKey;
        const next = pulled(now.from, now.handle, now.start, [at.x, at.y], free);
        usePieces.setState({
          moving: way === 'mesh' ? { ...held, mesh: next } : { ...held, corners: next, mesh: meshOver(next) },
        });
      } else if (way === 'rectangle' || way === 'ellipse') put([now.drawn[0], at]);
      else if (way === 'lasso' && Math.hypot(p.x - now.last.x, p.y - now.last.y) >= STEP_PX) add(p);
      return true;
    },
    up() {
      const now = hand.current;
      if (now.down && (way === 'rectangle' || way === 'ellipse' || way === 'lasso')) finish();
      now.down = false;
      now.handle = undefined;
      return true;
    },
  });
  useHotkeys('enter', () => (moving ? settlePiece() : hand.current.drawn.length > 2 && finish()), {
    enabled: way !== undefined,
  });
  useHotkeys(
    'escape',
    () => {
      put([]);
      usePieces.getState().drop();
    },
    { enabled: way !== undefined },
  );
  useEffect(() => {
    hand.current.drawn = [];
    // it is lifted as soon as one wants to move it, and anew when another layer is chosen
    usePieces.getState().drop();
    if (!MOVES.includes(way) && along.length > 0) usePieces.setState({ along: [] });
    const { bench } = useEasel.getState();
    if (MOVES.includes(way) && engine && bench && active)
      void usePieces.getState().lift(engine, movedLayers(bench, along));
  }, [way, engine, active, along]);

  const line = (places: readonly Corner[], closed = true) =>
    pathThrough(places.map((c) => toScreen(placeOf(c)))) + (closed ? 'Z' : '');
  const shape =
    way === 'rectangle' && drawn.length === 2
      ? rectangle(drawn)
      : way === 'ellipse' && drawn.length === 2
        ? oval(drawn)
        : undefined;
  const drawnPath = shape ? line(shape) : pathThrough(drawn.map(toScreen));
  const outline = selection.map((l) => line(l)).join('');
  const flash = flashed.map((l) => line(l)).join('');
  if (!way && !outline && !flash) return null;
  const side = moving && sidesOf(moving.corners);
  return (
    <>
      {moving && way !== 'mesh' && (
        <Lifted corners={moving.corners.map((c) => toScreen(placeOf(c)))} image={moving.image} />
      )}
      {moving && way === 'mesh' && <Bent mesh={moving.mesh.map((c) => toScreen(placeOf(c)))} image={moving.image} />}
      <svg
        ref={svg}
        className={easel.marksOver}
        data-testid="pieces"
        style={
          way
            ? {
                pointerEvents: 'all',
                cursor: SELECTS.includes(way) ? 'crosshair' : way === 'fill' || way === 'stamp' ? 'cell' : 'move',
                touchAction: 'none',
              }
            : undefined
        }
      >
        {!moving && <path d={outline} className={styles.selectedHalo} data-testid="selection" />}
        {!moving && <path d={outline} className={styles.selected} />}
        {flash && <path d={flash} className={styles.flashed} />}
        <path d={drawnPath} className={easel.markHalo} />
        <path d={drawnPath} className={easel.markLine} />
        {moving && way !== 'mesh' && <path d={line(moving.corners)} className={easel.markLine} />}
        {moving && way === 'mesh' && <path d={meshLines(moving.mesh, line)} className={easel.markLine} />}
        {moving &&
          (way === 'mesh' ? moving.mesh : moving.corners).map((c, i) => <Grip key={i} at={toScreen(placeOf(c))} />)}
        {moving && way === 'free' && side!.map((c, i) => <Grip key={i} at={toScreen(placeOf(c))} small />)}
        {moving && way === 'free' && (
          <>
            <path
              d={pathThrough([toScreen(placeOf(side![0])), toScreen(placeOf(gripOf(moving.corners)))])}
              className={easel.markLine}
            />
            <Grip at={toScreen(placeOf(gripOf(moving.corners)))} />
          </>
        )}
      </svg>
    </>
  );
}

const placeOf = ([x, y]: Corner): Place => ({ x, y });
const rectangle = ([a, b]: readonly Place[]): Corner[] => [
  [a.x, a.y],
  [b.x, a.y],
  [b.x, b.y],
  [a.x, b.y],
];
const oval = ([a, b]: readonly Place[]): Corner[] =>
  Array.from({ length: 64 }, (_, i) => {
    const t = (i / 32) * Math.PI;
    return [(a.x + b.x) / 2 + (Math.cos(t) * (b.x - a.x)) / 2, (a.y + b.y) / 2 + (Math.sin(t) * (b.y - a.y)) / 2];
  });
const meshLines = (mesh: readonly Corner[], line: (places: readonly Corner[], closed?: boolean) => string): string => {
  const rows = Array.from({ length: MESH_SIDE }, (_, r) => mesh.slice(r * MESH_SIDE, (r + 1) * MESH_SIDE));
  const columns = rows[0].map((_, c) => rows.map((row) => row[c]));
  return [...rows, ...columns].map((l) => line(l, false)).join('');
};

const Grip = ({ at, small }: { at: Place; small?: boolean }) => (
  <circle cx={at.x} cy={at.y} r={small ? 4 : 5.5} className={styles.grip} />
);

/** The lifted piece, laid over four places. */
function Lifted({ corners, image }: { corners: readonly Place[]; image: ImageBitmap }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current!;
    element.width = image.width;
    element.height = image.height;
    element.getContext('2d')!.drawImage(image, 0, 0);
  }, [image]);
  return (
    <canvas
      ref={canvas}
      className={styles.lifted}
      style={{ transform: cssMatrix(image.width, image.height, corners) }}
    />
  );
}

/** The lifted piece bent by a mesh: triangle by triangle. */
function Bent({ mesh, image }: { mesh: readonly Place[]; image: ImageBitmap }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current!;
    const box = element.parentElement!.getBoundingClientRect();
    element.width = box.width;
    element.height = box.height;
    const context = element.getContext('2d')!;
    const n = MESH_SIDE - 1;
    const corner = (c: number, r: number) => ({
      s: { x: (c / n) * image.width, y: (r / n) * image.height },
      d: mesh[r * MESH_SIDE + c],
    });
    for (let r = 0; r < n; r++) {
      for (let c = 0; c < n; c++) {
        const [p, q, o, t] = [corner(c, r), corner(c + 1, r), corner(c + 1, r + 1), corner(c, r + 1)];
        triangle(context, image, [p, q, o]);
        triangle(context, image, [p, o, t]);
      }
    }
  }, [mesh, image]);
  return <canvas ref={canvas} className={styles.lifted} />;
}

/** Draws a triangle of a picture where its corners have come to. */
function triangle(
  context: CanvasRenderingContext2D,
  image: ImageBitmap,
  [a, b, c]: readonly { s: Place; d: Place }[],
): void {
  const det = (b.s.x - a.s.x) * (c.s.y - a.s.y) - (c.s.x - a.s.x) * (b.s.y - a.s.y);
  if (Math.abs(det) < 1e-6) return;
  const part = (k: 'x' | 'y') => {
    const [u, v] = [b.d[k] - a.d[k], c.d[k] - a.d[k]];
    const m = (u * (c.s.y - a.s.y) - v * (b.s.y - a.s.y)) / det;
    const n = (v * (b.s.x - a.s.x) - u * (c.s.x - a.s.x)) / det;
    return [m, n, a.d[k] - m * a.s.x - n * a.s.y];
  };
  const [mx, nx, ox] = part('x');
  const [my, ny, oy] = part('y');
  context.save();
  context.beginPath();
  context.moveTo(a.d.x, a.d.y);
  context.lineTo(b.d.x, b.d.y);
  context.lineTo(c.d.x, c.d.y);
  context.clip();
  context.transform(mx, my, nx, ny, ox, oy);
  context.drawImage(image, 0, 0);
  context.restore();
}
