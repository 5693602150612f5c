'use client';
import { Button } from 'antd';
import { useEffect, useRef } from 'react';
import { byWords, pullAt, pullAtRim, strongest, type Pull, type PullPlace } from '@/core/study/looking/pull';
import { placeWords } from '@/core/study/looking/differences';
import { useFocus } from './focusStore';
import styles from './study.module.css';

const percent = (share: number) => `${Math.round(100 * share)} %`;
const where = ({ x, y }: { x: number; y: number }) => placeWords(Math.floor(x * 3), Math.floor(y * 3), 3, 3);

/** The map of pull, darker where it pulls more. */
export function PullMap({ pull: { width, height, map } }: { pull: Pull }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const most = map.reduce((a, b) => Math.max(a, b), 1e-9);
    const rgba = new Uint8ClampedArray(width * height * 4);
    for (let i = 0; i < map.length; i++) {
      const t = Math.sqrt(map[i] / most);
      rgba.set([238 - 60 * t, 234 - 170 * t, 226 - 186 * t, 255], 4 * i);
    }
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [width, height, map]);
  return <canvas ref={canvas} width={width} height={height} role="img" aria-label="Where it pulls" />;
}

/** Marks and the strongest places, over a picture. */
export function Places({ pull }: { pull: Pull }) {
  const marks = useFocus((s) => s.marks);
  return (
    <>
      {strongest(pull).map((place, i) => (
        <b key={i} className={styles.pulls} style={{ left: `${100 * place.x}%`, top: `${100 * place.y}%` }}>
          {i + 1}
        </b>
      ))}
      {marks.map(({ x, y }, i) => (
        <b key={`m${i}`} className={styles.mark} style={{ left: `${100 * x}%`, top: `${100 * y}%` }}>
          {'ABC'[i]}
        </b>
      ))}
    </>
  );
}

/** Whether the picture holds the eye where it should. */
export function Focal({ pull, children }: { pull: Pull; children?: React.ReactNode }) {
  const { marks, clear } = useFocus();
  const places = strongest(pull);
  const held = marks.map(({ x, y }) => pullAt(pull, x, y));
  const near = (p: PullPlace, q: PullPlace) => Math.hypot(p.x - q.x, p.y - q.y) < 0.12;
  const [first] = places;
  const rival = first && held.length > 0 && !held.some((mark) => near(mark, first)) ? first : undefined;
  return (
    <section className={styles.differences} aria-label="Where it pulls">
      <h3>Where the eye should rest</h3>
      {marks.length === 0 ? (
        <p className="quiet">Click up to three places on the canvas, the most important first.</p>
      ) : (
        <>
          <ul>
            {held.map((mark, i) => (
              <li key={i}>
                {'ABC'[i]}, {where(mark)}: {percent(mark.share)} of the pull
                {mark.by.length > 0 && `, by ${byWords(mark.by)}`}
              </li>
            ))}
          </ul>
          {rival && held[0] && (
            <p>
              1, {where(rival)}, pulls more than A ({percent(rival.share)} against {percent(held[0].share)}):{' '}
              {byWords(rival.by)}.
            </p>
          )}
          <Button size="small" onClick={clear}>
            Forget the marks
          </Button>
        </>
      )}
      <h3>Where it does</h3>
      {places.length === 0 ? (
        <p>It pulls nowhere: all of it is alike.</p>
      ) : (
        <ol className={styles.places}>
          {places.map((place, i) => (
            <li key={i}>
              {i + 1}, {where(place)}: {percent(place.share)}, by {byWords(place.by)}{' '}
              <Button
                type="link"
                size="small"
                aria-label={`Mark place ${i + 1}`}
                onClick={() => useFocus.getState().mark(place)}
              >
                mark
              </Button>
            </li>
          ))}
        </ol>
      )}
      <p className="quiet">
        {percent(pullAtRim(pull))} of the pull lies at the rim (an even picture has some 30 % there).
      </p>
      {children}
    </section>
  );
}
