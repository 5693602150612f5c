'use client';
import { useEffect, useRef, useState } from 'react';
import type { Crop } from '@/core/picture/unlit';
import type { AreaDifference } from '@/core/study/looking/differences';
import type { Studied } from '@/engine/questions';
import { Places, PullMap } from './Focal';
import { useFocus } from './focusStore';
import styles from './study.module.css';

/** How canvas and photo lie: beside each other, one over the other, or canvas and a map: of their differences, of its pull. */
export type Laid = 'beside' | 'divided' | 'differences' | 'pull';

function Picture({
  rgba,
  width,
  height,
  name,
}: {
  rgba: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
  name: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  return <canvas ref={canvas} width={width} height={height} role="img" aria-label={name} />;
}

const sharesOf = ({ x, y, width, height }: Crop) => ({
  left: `${100 * x}%`,
  top: `${100 * y}%`,
  width: `${100 * width}%`,
  height: `${100 * height}%`,
});

/** The area that is spoken of, framed. */
function Frame({ chosen, net: [columns, rows] }: { chosen?: AreaDifference; net: readonly [number, number] }) {
  if (!chosen) return null;
  return (
    <i
      className={styles.frame}
      style={{
        left: `${(100 * chosen.column) / columns}%`,
        top: `${(100 * chosen.row) / rows}%`,
        width: `${100 / columns}%`,
        height: `${100 / rows}%`,
      }}
    />
  );
}

/** A part that is pulled out with the hand over a picture, in shares; taken when the hand lifts. */
function usePulledCrop(take?: (crop: Crop) => void) {
  const [pulled, setPulled] = useState<Crop>();
  const from = useRef<readonly [number, number]>(undefined);
  const at = ({ currentTarget, clientX, clientY }: React.PointerEvent): readonly [number, number] => {
    const { left, top, width, height } = currentTarget.getBoundingClientRect();
    const within = (v: number) => Math.max(0, Math.min(1, v));
    return [within((clientX - left) / width), within((clientY - top) / height)];
  };
  const hand = take && {
    onPointerDown(event: React.PointerEvent) {
      from.current = at(event);
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove(event: React.PointerEvent) {
      if (!from.current) return;
      const [x0, y0] = from.current;
      const [x1] = at(event);
      // of the proportions of the picture, whichever way it is pulled
      const side = Math.abs(x1 - x0);
      const [, y1] = at(event);
      const x = x1 < x0 ? x0 - side : x0;
      const y = y1 < y0 ? y0 - side : y0;
      setPulled({ x: Math.max(0, x), y: Math.max(0, Math.min(1 - side, y)), width: side, height: side });
    },
    onPointerUp() {
      from.current = undefined;
      if (pulled && pulled.width > LEAST_CROP) take(pulled);
      setPulled(undefined);
    },
  };
  return { pulled, hand };
}
/** A smaller part is none, share of the width. */
const LEAST_CROP = 0.04;

/** Canvas and photo in register, with the same crop. */
export function TwoPictures({
  seen,
  laid,
  chosen,
  net,
  crop,
  over,
}: {
  seen: Studied;
  laid: Laid;
  chosen?: AreaDifference;
  net: readonly [number, number];
  /** Takes a part to look at alone. */
  crop?: (part: Crop) => void;
  /** What is laid over the canvas while its pull is looked at. */
  over?: React.ReactNode;
}) {
  const { pulled, hand } = usePulledCrop(crop);
  const { width, height, canvas, photo, map } = seen;
  const [divider, setDivider] = useState(0.5);
  const other = laid === 'differences' ? map : photo;
  const size = { width, height };
  if (laid === 'divided' && photo) {
    return (
      <figure className={styles.over}>
        <div>
          <Picture rgba={canvas} {...size} name="Canvas" />
          <span style={{ clipPath: `inset(0 0 0 ${100 * divider}%)` }}>
            <Picture rgba={photo} {...size} name="Photo" />
          </span>
          <Frame chosen={chosen} net={net} />
          <i className={styles.divider} style={{ left: `${100 * divider}%` }} />
        </div>
        <input
          type="range"
          min={0}
          max={1}
          step={0.005}
          value={divider}
          aria-label="Divider between canvas and photo"
          onChange={(e) => setDivider(Number(e.target.value))}
        />
        <figcaption>canvas left, photo right of the divider</figcaption>
      </figure>
    );
  }
  if (laid === 'pull' && seen.pull) {
    const { pull } = seen;
    return (
      <div className={styles.beside}>
        <figure>
          <div
            className={styles.marked}
            data-testid="marked"
            onClick={({ currentTarget, clientX, clientY }) => {
              const { left, top, width: w, height: h } = currentTarget.getBoundingClientRect();
              useFocus.getState().mark({ x: (clientX - left) / w, y: (clientY - top) / h });
            }}
          >
            <Picture rgba={canvas} {...size} name="Canvas" />
            <Places pull={pull} />
            {over}
          </div>
          <figcaption>canvas: A to C should hold the eye, 1 to 5 do</figcaption>
        </figure>
        <figure>
          <div>
            <PullMap pull={pull} />
          </div>
          <figcaption>where it pulls, the redder the more</figcaption>
        </figure>
      </div>
    );
  }
  return (
    <div className={styles.beside}>
      <figure>
        <div {...hand} data-testid="cropped" style={hand && { cursor: 'crosshair', touchAction: 'none' }}>
          <Picture rgba={canvas} {...size} name="Canvas" />
          <Frame chosen={chosen} net={net} />
          {pulled && <i className={styles.frame} style={sharesOf(pulled)} />}
        </div>
        <figcaption>canvas: pull out a part to look at it alone</figcaption>
      </figure>
      {other && (
        <figure>
          <div>
            <Picture rgba={other} {...size} name={laid === 'differences' ? 'Differences' : 'Photo'} />
            <Frame chosen={chosen} net={net} />
          </div>
          <figcaption>
            {laid === 'differences' ? 'differences: redder is larger, hatched is too dark' : 'photo'}
          </figcaption>
        </figure>
      )}
    </div>
  );
}
