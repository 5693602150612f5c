'use client';
import { masstoneLab } from '@/core/colour/mixture';
import { labToLinear, linearToHex } from '@/core/colour/colorimetry';
import { useCaption } from './useCaption';
import styles from './replay.module.css';

/** What is said under the picture: the stage, the tool, and what is on it. */
export function CaptionLine() {
  const caption = useCaption();
  if (!caption) return <div className={styles.caption}>Nothing has been painted yet.</div>;
  const { stage, number, stages, stroke, strokes, tool, paint, mixture, layer, pause } = caption;
  return (
    <div className={styles.caption} data-testid="caption">
      <p>
        <strong>{stage}</strong>
        <span className="quiet">
          Stage {number} of {stages}, stroke {stroke} of {strokes}
        </span>
      </p>
      <i style={mixture && { background: linearToHex(labToLinear(masstoneLab(mixture))) }} />
      <p>
        <strong>
          {pause || tool}
          {!pause && layer && <span className="quiet">, on {layer}</span>}
        </strong>
        <span className="quiet">{paint}</span>
      </p>
    </div>
  );
}
