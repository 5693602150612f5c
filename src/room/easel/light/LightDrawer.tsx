'use client';
import { Button, InputNumber, Segmented, Select, Switch } from 'antd';
import { useState } from 'react';
import { LENGTHS, type LengthUnit } from '@/core/study/light/lightStudy';
import { lampColour } from '@/core/study/light/lampColour';
import { useEasel } from '@/room/easel/easelStore';
import { Acts, type Act } from './Acts';
import { layBoardShade } from './layShade';
import { boardNow, DAYLIGHT, useLight, type BoardAct } from './lightStore';
import { PerspectiveTools } from './PerspectiveTools';
import { STARTERS } from './starters';
import { ThingCard } from './ThingCard';
import styles from './light.module.css';

const ACTS: readonly Act<BoardAct>[] = [
  { id: 'pull', name: 'Move', hint: 'Move what is there, and pull its round places' },
  { id: 'lamp', name: 'Lamp', hint: 'Pull from its middle to its rim' },
  { id: 'wall', name: 'Wall', hint: 'Pull from end to end; floors and tables are walls too' },
  { id: 'window', name: 'Window', hint: 'Pull along a wall' },
  { id: 'round', name: 'Round', hint: 'Pull from its middle to its rim' },
  { id: 'outline', name: 'Outline', hint: 'Corner after corner; Enter or twice on a place ends it' },
  { id: 'sight', name: 'Sight', hint: 'From a place, where it sees light' },
];

/** The tools of the light study, and what it is set to. */
export function LightDrawer() {
  const { mode, change } = useLight();
  return (
    <>
      <h2>Light study</h2>
      <Segmented
        size="small"
        aria-label="Drawn in"
        value={mode}
        onChange={(next: 'plan' | 'section' | 'perspective') => {
          useLight
            .getState()
            .set({ act: undefined, setting: undefined, chosen: undefined, sight: undefined, seen: undefined });
          change({ mode: next });
        }}
        options={[
          { value: 'plan', label: 'Plan' },
          { value: 'section', label: 'Section' },
          { value: 'perspective', label: 'Perspective' },
        ]}
      />
      {mode === 'perspective' ? <PerspectiveTools /> : <BoardTools />}
    </>
  );
}

function BoardTools() {
  const state = useLight();
  const { laid, look, stays, act, chosen, seen } = state;
  const { set, add, change, setBoard, remove } = state;
  const canvas = useEasel((s) => s.opened?.spec);
  const [trouble, setTrouble] = useState('');
  const study = boardNow(state);
  const thing = study.things.find((t) => t.id === chosen);
  const has = (is: 'sun' | 'sky') => study.things.find((t) => t.is === is);
  const light = (is: 'sun' | 'sky') => {
    const there = has(is);
    if (there) remove(there.id);
    else if (is === 'sun') add({ is, from: 60, wide: 0.53, strength: 2, colour: DAYLIGHT });
    else add({ is, strength: 0.6, colour: lampColour(11_000) });
    if (!there) set({ act: 'pull' });
  };
  return (
    <>
      <Acts label="Draw" acts={ACTS} now={act} choose={(next) => set({ act: next })}>
        {(['sun', 'sky'] as const).map((is) => (
          <Button key={is} size="small" aria-pressed={has(is) !== undefined} onClick={() => light(is)}>
            {has(is) ? `No ${is}` : is === 'sun' ? 'Sun' : 'Sky'}
          </Button>
        ))}
      </Acts>
      {study.things.length === 0 && (
        <div className={styles.starters}>
          {STARTERS.filter(({ view }) => view === study.view).map(({ name, things }) => (
            <Button
              key={name}
              size="small"
              onClick={() => {
                setBoard({ things: things(study) });
                set({ act: 'pull' });
              }}
            >
              {name}
            </Button>
          ))}
        </div>
      )}
      {thing && <ThingCard key={thing.id} thing={thing} study={study} />}
      <dl className={styles.settings}>
        <dt>Shows</dt>
        <dd>
          <Segmented
            size="small"
            aria-label="Shows"
            value={look}
            onChange={(next: 'shadow' | 'light') => change({ look: next })}
            options={[
              { value: 'shadow', label: 'Shadow' },
              { value: 'light', label: 'Light' },
            ]}
          />
        </dd>
        <dt>Lies</dt>
        <dd>
          <Segmented
            size="small"
            aria-label="Lies"
            value={laid}
            onChange={(next: 'beside' | 'over') => change({ laid: next })}
            options={[
              { value: 'beside', label: 'Beside' },
              { value: 'over', label: 'Over' },
            ]}
          />
        </dd>
        <dt>Width</dt>
        <dd className={styles.line}>
          <InputNumber
            size="small"
            min={0.01}
            aria-label="Width of the board"
            value={Math.round((1000 * study.widthMm) / LENGTHS[study.unit]) / 1000}
            onChange={(v) => {
              if (v === null || !canvas) return;
              const widthMm = Math.max(1, Math.min(1e6, v * LENGTHS[study.unit]));
              setBoard({ widthMm, heightMm: (widthMm * canvas.heightMm) / canvas.widthMm });
            }}
          />
          <Select
            size="small"
            aria-label="Unit"
            value={study.unit}
            onChange={(unit: LengthUnit) => setBoard({ unit })}
            options={(Object.keys(LENGTHS) as LengthUnit[]).map((value) => ({ value, label: value }))}
          />
        </dd>
        <dt id="light-stays">Stays</dt>
        <dd>
          <Switch
            size="small"
            aria-labelledby="light-stays"
            checked={stays}
            onChange={(next) => change({ stays: next, ...(next && { laid: 'over' }) })}
          />{' '}
          <span className="quiet">over the canvas as a guide</span>
        </dd>
      </dl>
      <Button
        size="small"
        disabled={!seen?.whole}
        onClick={() => {
          setTrouble('');
          layBoardShade(seen?.shades ?? [], canvas?.widthMm ?? 0).catch((error: unknown) =>
            setTrouble(error instanceof Error ? error.message : 'The shade could not be laid.'),
          );
        }}
      >
        Lay as shade layers
      </Button>
      {study.things.length > 0 && (
        <Button
          size="small"
          type="text"
          onClick={() => {
            setBoard({ things: [] });
            set({ chosen: undefined, sight: undefined });
          }}
        >
          Clear the board
        </Button>
      )}
      {trouble && <p role="alert">{trouble}</p>}
    </>
  );
}
