'use client';
import { Button, Checkbox, Popover, Segmented } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { aidOf, type Aid } from '@/core/picture/aids/aids';
import { THICKNESS_STEPS } from '@/core/picture/aids/thickness';
import { EDGE_TINTS } from '@/core/study/looking/edgeMap';
import type { GlassPicture } from '@/engine/questions';
import { Dial } from '@/room/easel/hand/Dial';
import { useEasel } from '@/room/easel/easelStore';
import { useLikings } from '@/room/likings';
import styles from './looking.module.css';

/** Width of a small picture, CSS pixels. */
const WIDTH = 132;
/** Most that a squint softens, and how far surroundings go, mm. */
const MOST_SQUINT_MM = 12;
const MOST_AROUND_MM = 60;

/** The looking glass: the painting in small, through each aid; a click puts one on, and painting goes on under it. */
export function LookingGlass() {
  const [open, setOpen] = useState(false);
  const on = useEasel((s) => s.aid !== 'none' || s.how.squintMm > 0);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={setOpen}
      content={<Glass />}
      destroyOnHidden
    >
      <Button type={on ? 'primary' : 'text'} aria-expanded={open}>
        Looking
      </Button>
    </Popover>
  );
}

function Glass() {
  const engine = useEasel((s) => s.engine);
  const how = useEasel((s) => s.how);
  const aid = useEasel((s) => s.aid);
  const strokes = useEasel((s) => s.bench?.strokes);
  const follow = useLikings((s) => s.photosFollow);
  const { like } = useLikings.getState();
  const { setHow, toggleAid } = useEasel.getState();
  const [pictures, setPictures] = useState<readonly GlassPicture[]>([]);
  useEffect(() => {
    let gone = false;
    const width = Math.round(WIDTH * window.devicePixelRatio);
    engine?.ask({ of: 'glass', width, how }).then(
      (seen) => !gone && setPictures(seen),
      () => {},
    );
    return () => {
      gone = true;
    };
    // the pictures follow what is painted
  }, [engine, how, strokes]);
  return (
    <div className={styles.glass}>
      <div className={styles.pictures}>
        {pictures.map((picture) => (
          <Small
            key={picture.aid}
            picture={picture}
            on={picture.aid === aid}
            press={() => (picture.aid === 'none' ? aid !== 'none' && toggleAid(aid) : toggleAid(picture.aid))}
          />
        ))}
      </div>
      <div className={styles.how}>
        <Checkbox checked={follow} onChange={(e) => like({ photosFollow: e.target.checked })}>
          Photos too
        </Checkbox>
        <Dial
          label="Squint"
          value={Math.sqrt(how.squintMm / MOST_SQUINT_MM)}
          say={(v) => (v === 0 ? 'open eyes' : `${(MOST_SQUINT_MM * v * v).toFixed(1)} mm`)}
          onSet={(v) => setHow({ squintMm: Math.round(MOST_SQUINT_MM * v * v * 10) / 10 })}
          hint="Half closed eyes, under whatever is looked through"
        />
        {aid === 'masses' && (
          <Segmented
            size="small"
            aria-label="Masses"
            options={[2, 3, 4, 5]}
            value={how.masses}
            onChange={(masses) => setHow({ masses })}
          />
        )}
        {aid === 'temperature' && (
          <Dial
            label="Around"
            value={how.aroundMm / MOST_AROUND_MM}
            say={(v) => (v === 0 ? 'neutral grey' : `${Math.round(MOST_AROUND_MM * v)} mm`)}
            onSet={(v) => setHow({ aroundMm: Math.round(MOST_AROUND_MM * v) })}
            hint="What warm and cool are compared with"
          />
        )}
        {aid === 'lifted' && (
          <Dial
            label="Below"
            value={how.liftBelow / 8}
            say={(v) => `value ${(8 * v).toFixed(1)}`}
            onSet={(v) => setHow({ liftBelow: Math.round(80 * v) / 10 })}
            hint="Darks below this value are lifted"
          />
        )}
        {aid === 'edges' && (
          <ul className={styles.legend} aria-label="Edges">
            <li>
              <i style={{ background: rgb(EDGE_TINTS.found) }} /> found: a line
            </li>
            <li>
              <i style={{ background: rgb(EDGE_TINTS.soft) }} /> soft: hatched
            </li>
            <li>
              <i style={{ background: rgb(EDGE_TINTS.lost) }} /> lost: dots
            </li>
          </ul>
        )}
        {aid === 'thickness' && (
          <ul className={styles.legend} aria-label="Thickness">
            {THICKNESS_STEPS.map(({ um, tint, says }) => (
              <li key={um}>
                <i style={{ background: rgb(tint) }} /> {says}, {um} µm
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

const rgb = (tint: readonly number[]) => `rgb(${tint.join(' ')})`;
const nameOf = (aid: Aid): string => aidOf(aid)?.name ?? 'Plain';

function Small({ picture, on, press }: { picture: GlassPicture; on: boolean; press: () => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { aid, rgba, width, height } = picture;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  return (
    <button
      type="button"
      className={styles.small}
      aria-pressed={on}
      title={aidOf(aid)?.hint ?? 'As it is'}
      onClick={press}
    >
      <canvas ref={canvas} width={width} height={height} style={{ width: WIDTH }} />
      <span>{nameOf(aid)}</span>
    </button>
  );
}
