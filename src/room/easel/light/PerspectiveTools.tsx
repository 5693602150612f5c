'use client';
import { Button, Segmented, Slider, Switch } from 'antd';
import { useState } from 'react';
import { shadowOutline } from '@/core/study/light/castShadow';
import { Acts, type Act } from './Acts';
import { layCastShadows } from './layShade';
import { perspectiveNow, useLight, type PerspectiveSetting } from './lightStore';
import styles from './light.module.css';

const ACTS: readonly Act<PerspectiveSetting>[] = [
  { id: 'light', name: 'Light', hint: 'Pull the light, its foot on the ground, and the horizon' },
  { id: 'thing', name: 'Upright', hint: 'Pull from foot to top; the next one beside it belongs to the same thing' },
  { id: 'plane', name: 'Wall', hint: 'Pull along the foot of a wall that shadows climb' },
];

/** What is set for shadows in perspective. */
export function PerspectiveTools() {
  const state = useLight();
  const { setting, stays, set, change } = state;
  const study = perspectiveNow(state);
  const [strength, setStrength] = useState(0.5);
  const [trouble, setTrouble] = useState('');
  const put = (changes: Partial<typeof study>) => change({ perspective: { ...study, ...changes } });
  const { light, things, plane, horizon } = study;
  return (
    <>
      <Acts label="Set" acts={ACTS} now={setting} choose={(next) => set({ setting: next })}>
        <Button size="small" onClick={() => set({ setting: 'thing', chosen: undefined })}>
          Another thing
        </Button>
      </Acts>
      <dl className={styles.settings}>
        <dt>Light</dt>
        <dd>
          <Segmented
            size="small"
            aria-label="Kind of light"
            value={light.is}
            onChange={(is: 'lamp' | 'sun') =>
              put({
                light:
                  is === 'sun'
                    ? { is, at: light.at }
                    : {
                        is,
                        at: light.at,
                        foot: { x: light.at.x, y: Math.max(light.at.y, horizon) + 0.2 * state.canvas.heightMm },
                      },
              })
            }
            options={[
              { value: 'lamp', label: 'Lamp' },
              { value: 'sun', label: 'Sun' },
            ]}
          />
        </dd>
        <dt id="perspective-stays">Stays</dt>
        <dd>
          <Switch
            size="small"
            aria-labelledby="perspective-stays"
            checked={stays}
            onChange={(v) => change({ stays: v })}
          />{' '}
          <span className="quiet">over the canvas as a guide</span>
        </dd>
        <dt>Strength</dt>
        <dd>
          <Slider
            min={0.1}
            max={1}
            step={0.1}
            value={strength}
            onChange={setStrength}
            ariaLabelForHandle="Strength of the shade"
            tooltip={{ formatter: (v) => `${Math.round(100 * (v ?? 0))} %` }}
          />
        </dd>
      </dl>
      {light.is === 'sun' && light.at.y > horizon && (
        <p className="quiet">The sun stands behind us: its rays run towards the place under the horizon.</p>
      )}
      <ul className={styles.says}>
        {things.map((thing, i) => {
          const shadow = shadowOutline(study, thing);
          return (
            <li key={i}>
              Thing {i + 1}, {thing.length} {thing.length === 1 ? 'upright' : 'uprights'}
              {typeof shadow === 'string' && <span className="quiet">: no shadow, {shadow}</span>}
              <Button
                type="text"
                size="small"
                aria-label={`Take thing ${i + 1} away`}
                onClick={() => put({ things: things.filter((_, k) => k !== i) })}
              >
                ×
              </Button>
            </li>
          );
        })}
      </ul>
      <div className={styles.tools}>
        <Button
          size="small"
          disabled={things.length === 0}
          onClick={() => {
            setTrouble('');
            const outlines = things.map((thing) => shadowOutline(study, thing)).filter((s) => typeof s !== 'string');
            layCastShadows(outlines, strength).catch((error: unknown) =>
              setTrouble(error instanceof Error ? error.message : 'The shade could not be laid.'),
            );
          }}
        >
          Lay as a shade layer
        </Button>
        {plane && (
          <Button size="small" type="text" onClick={() => put({ plane: undefined })}>
            No wall
          </Button>
        )}
      </div>
      {trouble && <p role="alert">{trouble}</p>}
    </>
  );
}
