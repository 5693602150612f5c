'use client';
import { useEffect, useRef } from 'react';
import { createPortal } from 'react-dom';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { masstoneLab } from '@/core/colour/mixture';
import { recipeWords } from '@/core/colour/recipeWords';
import { TOOLS } from '@/core/tools/tools';
import { useEasel } from '@/room/easel/easelStore';
import { usePopup } from '@/room/easel/board/usePopup';
import { useLive } from './liveStore';
import styles from './replay.module.css';

/** How often onlookers see what has changed, ms, and in how many pixels at the most. */
const EVERY_MS = 500;
const MOST_PX = 1400;

/** A second window for onlookers: the painting as it grows, the tool, and what is on it. */
export function LiveView({ title }: { title: string }) {
  const on = useLive((s) => s.on);
  const body = usePopup(on, title, () => useLive.setState({ on: false }));
  return on && body ? createPortal(<Live title={title} />, body) : null;
}

function Live({ title }: { title: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const engine = useEasel((s) => s.engine);
  const tool = useEasel((s) => s.bench?.tool);
  const mixture = useEasel((s) => s.bench?.mixture);
  const strokes = useEasel((s) => s.bench?.strokes);
  useEffect(() => {
    if (!engine) return;
    let gone = false;
    let timer: ReturnType<typeof setTimeout>;
    const look = async () => {
      try {
        const { width, height, rgba } = await engine.ask({ of: 'glance', most: MOST_PX });
        const element = canvas.current;
        if (gone || !element) return;
        if (element.width !== width || element.height !== height) [element.width, element.height] = [width, height];
        element.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
      } catch {
        // it is looked at again in a moment
      }
      if (!gone) timer = setTimeout(() => void look(), EVERY_MS);
    };
    void look();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [engine]);
  const held = tool && TOOLS.of(tool.tool).card.name;
  const bare = !mixture || Object.keys(mixture).length === 0;
  return (
    <div className={styles.live}>
      <canvas ref={canvas} aria-label={`${title}, as it grows`} />
      <div className={styles.caption}>
        <p>
          <strong>{title}</strong>
          <span className="quiet">{strokes === 1 ? '1 stroke' : `${strokes ?? 0} strokes`}</span>
        </p>
        <i style={bare ? undefined : { background: linearToHex(labToLinear(masstoneLab(mixture))) }} />
        <p>
          <strong>
            {held} {tool && `${Number(tool.sizeMm.toFixed(1))} mm`}
          </strong>
          <span className="quiet">{bare ? '' : recipeWords(mixture)}</span>
        </p>
      </div>
    </div>
  );
}
