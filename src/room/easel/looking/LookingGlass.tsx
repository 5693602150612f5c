'use client';
import { Button, Checkbox, Popover, Segmented, Slider } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { aidOf, type Aid } from '@/core/picture/aids/aids';
import { THICKNESS_STEPS } from '@/core/picture/aids/thickness';
import type { Masses } from '@/core/study/looking/masses';
import { EDGE_TINTS } from '@/core/study/looking/edgeMap';
import type { GlassPicture } from '@/engine/questions';
import { mirrored, turnAt } from '@/room/easel/canvas/viewControl';
import { Dial } from '@/room/easel/hand/Dial';
import { isRaking, useEasel } from '@/room/easel/easelStore';
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
  const view = useEasel((s) => s.view);
  const raking = useEasel((s) => isRaking(s.light));
  const { setHow, toggleAid, look, toggleRaking } = useEasel.getState();
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
  const plain = pictures.find((picture) => picture.aid === 'none' && !picture.raking);
  const found = pictures.find(({ masses }) => masses)?.masses;
  const upside = Math.cos(view.turn) < -0.98;
  return (
    <div className={styles.glass}>
      <div className={styles.pictures}>
        {pictures.map((picture) =>
          picture.raking ? (
            <Small
              key="raking"
              picture={picture}
              name="Raking light"
              hint="See the relief of the paint in light from the side"
              on={raking}
              press={toggleRaking}
            />
          ) : (
            <Small
              key={picture.aid}
              picture={picture}
              name={nameOf(picture.aid)}
              hint={aidOf(picture.aid)?.hint ?? 'As it is'}
              on={picture.aid === aid}
              press={() => (picture.aid === 'none' ? aid !== 'none' && toggleAid(aid) : toggleAid(picture.aid))}
            />
          ),
        )}
        {plain && (
          <>
            <Small
              picture={plain}
              name="Mirrored"
              hint="See it in the looking-glass"
              turned="scaleX(-1)"
              on={view.mirror}
              press={() => look(mirrored(useEasel.getState().view))}
            />
            <Small
              picture={plain}
              name="Upside down"
              hint="See it upside down"
              turned="rotate(180deg)"
              on={upside}
              press={() => {
                const now = useEasel.getState().view;
                look(turnAt(now, Math.PI, now.width / 2, now.height / 2));
              }}
            />
          </>
        )}
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
          <>
            <Segmented
              size="small"
              aria-label="Masses"
              options={[2, 3, 4, 5]}
              value={how.masses}
              onChange={(masses) => setHow({ masses, borders: undefined })}
            />
            {found && (
              <MassBorders {...found} byHand={how.borders !== undefined} set={(borders) => setHow({ borders })} />
            )}
          </>
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
          <Checkbox checked={how.contours === true} onChange={(e) => setHow({ contours: e.target.checked })}>
            Contour lines
          </Checkbox>
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

/** How values are spread, and the borders between masses: pulled, they are set by hand. */
function MassBorders({
  values,
  of: { borders, of },
  byHand,
  set,
}: {
  values: readonly number[];
  of: Masses;
  byHand: boolean;
  set: (borders: readonly number[] | undefined) => void;
}) {
  const most = Math.max(...values, 1e-9);
  const [held, setHeld] = useState<number[]>();
  if (borders.length === 0) return null;
  return (
    <div className={styles.borders}>
      <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden>
        {values.map((share, i) => (
          <rect key={i} x={i} width={1} y={24 - (24 * share) / most} height={(24 * share) / most} />
        ))}
      </svg>
      <Slider
        range
        min={0}
        max={10}
        step={0.1}
        value={held ?? [...borders]}
        onChange={setHeld}
        onChangeComplete={(next) => {
          setHeld(undefined);
          set([...next].sort((p, q) => p - q));
        }}
        ariaLabelForHandle={borders.map((_, i) => `Border ${i + 1} between masses`)}
        tooltip={{ formatter: (v) => `value ${v?.toFixed(1)}` }}
      />
      <span className="quiet">{of.map(({ share }) => `${Math.round(100 * share)} %`).join(' · ')}</span>
      {byHand && (
        <Button type="link" size="small" onClick={() => set(undefined)}>
          Find them
        </Button>
      )}
    </div>
  );
}

function Small({
  picture,
  name,
  hint,
  on,
  press,
  turned,
}: {
  picture: GlassPicture;
  name: string;
  hint: string;
  on: boolean;
  press: () => void;
  /** How the picture itself is shown, as CSS says it. */
  turned?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, width, height } = picture;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  return (
    <button type="button" className={styles.small} aria-pressed={on} title={hint} onClick={press}>
      <canvas ref={canvas} width={width} height={height} style={{ width: WIDTH, transform: turned }} />
      <span>{name}</span>
    </button>
  );
}
