'use client';
import { Button, Select, Slider } from 'antd';
import { useRef } from 'react';
import { STUDIO_LIGHT, type Light } from '@/core/picture/picture';
import { RAKING, useEasel } from '@/room/easel/easelStore';
import { useHand } from '@/room/parts/useHand';
import easel from '../easel.module.css';
import styles from './lamp.module.css';

const SIZE = 168;
const finishWords = (f: number) =>
  f < 0.25 ? 'matte' : f < 0.45 ? 'dull' : f <= 0.55 ? 'as painted' : f < 0.8 ? 'satin' : 'varnished';

/** What a painter puts on when it is dry, and the finish that it has then. */
const VARNISHES = [
  { name: 'Matte varnish', finish: 0.1 },
  { name: 'As it dried', finish: 0.5 },
  { name: 'Oiled out', finish: 0.65 },
  { name: 'Retouching varnish', finish: 0.78 },
  { name: 'Gloss varnish', finish: 1 },
] as const;

/**
 * The lamp over the painting, seen from above: drag it round. Near the middle it stands high and the relief is faint;
 * at the rim it rakes.
 */
export function LampDrawer() {
  const light = useEasel((s) => s.light);
  const setLight = useEasel((s) => s.setLight);
  const plan = useRef<SVGSVGElement>(null);
  const far = ((90 - light.elevation) / 82) * (SIZE / 2 - 12);
  const angle = (light.azimuth * Math.PI) / 180;
  const x = SIZE / 2 + Math.sin(angle) * far;
  const y = SIZE / 2 - Math.cos(angle) * far;

  const follow = (event: PointerEvent) => {
    if (!(event.buttons & 1)) return;
    const box = plan.current!.getBoundingClientRect();
    const dx = event.clientX - box.left - SIZE / 2;
    const dy = event.clientY - box.top - SIZE / 2;
    const distance = Math.min(1, Math.hypot(dx, dy) / (SIZE / 2 - 12));
    setLight({
      ...light,
      azimuth: Math.round(((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360),
      elevation: Math.round(90 - distance * 82),
    });
  };
  useHand(plan, true, {
    down: (event) => {
      follow(event);
      return true;
    },
    move: follow,
    up: () => {},
  });
  const set = (changes: Partial<Light>) => setLight({ ...light, ...changes });

  return (
    <>
      <h2>Lamp</h2>
      <svg
        ref={plan}
        width={SIZE}
        height={SIZE}
        className={styles.lamp}
        role="img"
        aria-label={`Light from ${light.azimuth} degrees, ${light.elevation} degrees high`}
      >
        <circle cx={SIZE / 2} cy={SIZE / 2} r={SIZE / 2 - 12} className={styles.lampReach} />
        <rect x={SIZE / 2 - 26} y={SIZE / 2 - 19} width={52} height={38} className={styles.lampCanvas} />
        <line x1={x} y1={y} x2={SIZE / 2} y2={SIZE / 2} className={styles.lampRay} />
        <circle cx={x} cy={y} r={8} className={styles.lampBulb} />
      </svg>
      <label className={styles.field}>
        Direction <span className="fact">{light.azimuth}°</span>
        <Slider
          min={0}
          max={359}
          value={light.azimuth}
          onChange={(azimuth) => set({ azimuth })}
          tooltip={{ open: false }}
          ariaLabelForHandle="Direction of the lamp"
        />
      </label>
      <label className={styles.field}>
        Height <span className="fact">{light.elevation}°</span>
        <Slider
          min={8}
          max={90}
          value={light.elevation}
          onChange={(elevation) => set({ elevation })}
          tooltip={{ open: false }}
          ariaLabelForHandle="Height of the lamp"
        />
      </label>
      <label className={styles.field}>
        Light of the room <span className="fact">{Math.round(light.room * 100)} %</span>
        <Slider
          min={0}
          max={1}
          step={0.01}
          value={light.room}
          onChange={(room) => set({ room })}
          tooltip={{ open: false }}
          ariaLabelForHandle="Light of the room"
        />
      </label>
      <label className={styles.field}>
        Finish <span className="fact">{finishWords(light.finish)}</span>
        <Slider
          min={0}
          max={1}
          step={0.01}
          value={light.finish}
          onChange={(finish) => set({ finish })}
          tooltip={{ open: false }}
          ariaLabelForHandle="Finish, from matte to varnished"
        />
      </label>
      <Select
        size="small"
        className={styles.varnish}
        aria-label="Varnish"
        value={VARNISHES.find(({ finish }) => finish === light.finish)?.finish}
        placeholder="A varnish"
        onChange={(finish) => set({ finish })}
        options={VARNISHES.map(({ name, finish }) => ({ value: finish, label: name }))}
      />
      <label className={styles.field}>
        Colour <span className="fact">{light.warmth < -0.1 ? 'cool' : light.warmth > 0.1 ? 'warm' : 'neutral'}</span>
        <Slider
          min={-1}
          max={1}
          step={0.05}
          value={light.warmth}
          onChange={(warmth) => set({ warmth })}
          tooltip={{ open: false }}
          ariaLabelForHandle="Colour of the light"
        />
      </label>
      <div className={easel.line}>
        <Button onClick={() => setLight(STUDIO_LIGHT)}>Studio light</Button>
        <Button onClick={() => set(RAKING)}>Raking</Button>
        <Button onClick={() => set({ room: 1, finish: 0.5, warmth: 0 })}>Flat</Button>
      </div>
    </>
  );
}
