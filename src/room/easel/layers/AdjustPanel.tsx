'use client';
import { Button, Checkbox, Segmented, Slider } from 'antd';
import { useRef, useState } from 'react';
import { adjustmentSchema, curveThrough, type Adjustment, type Curve, type Levels } from '@/core/colour/adjust';
import type { LayerState } from '@/engine/protocol';
import { useBoard } from '@/room/easel/board/boardStore';
import { useEasel } from '@/room/easel/easelStore';
import { Histogram } from './Histogram';
import { useSight } from '@/room/easel/sighting/sightStore';
import { placeIn, useHand } from '@/room/parts/useHand';
import styles from './layers.module.css';

type Channel = 'all' | 'red' | 'green' | 'blue';
const CHANNELS: { value: Channel; label: string }[] = [
  { value: 'all', label: 'all' },
  { value: 'red', label: 'red' },
  { value: 'green', label: 'green' },
  { value: 'blue', label: 'blue' },
];
const PLAIN_LEVELS: Levels = { black: 0, white: 1, gamma: 1, outBlack: 0, outWhite: 1 };
const PLAIN_CURVE: Curve = [
  [0, 0],
  [1, 1],
];

/** The settings of an adjustment layer: they follow the hand and can be changed at any time. */
export function AdjustPanel({ layer, adjust }: { layer: LayerState; adjust: Adjustment }) {
  const apply = useEasel((s) => s.apply);
  const refused = useEasel((s) => s.refused);
  /** What the hand has set, over what the engine told then: shown until the engine tells of something newer, or refuses. */
  const [held, setHeld] = useState<{ next: Adjustment; over: Adjustment; refused: string }>();
  const [channel, setChannel] = useState<Channel>('all');
  const [beside, setBeside] = useState(true);
  const photo = useSight((s) => s.pictures).get(useBoard((s) => s.chosen));
  const now = held?.over === adjust && held.refused === refused ? held.next : adjust;
  const engine = useEasel((s) => s.engine);
  const tell = (next: Adjustment) => {
    setHeld({ next, over: adjust, refused });
    apply({ do: 'layer.set', layer: layer.id, adjust: next });
  };
  const drag = (next: Adjustment) => {
    setHeld({ next, over: adjust, refused });
    engine?.tryLook(layer.id, { adjust: next });
  };
  const dials = (
    list: {
      label: string;
      value: number;
      min: number;
      max: number;
      step: number;
      say: string;
      to: (v: number) => Adjustment;
    }[],
  ) =>
    list.map(({ label, value, min, max, step, say, to }) => (
      <label key={label}>
        {label} <span className="fact">{say}</span>
        <Slider
          min={min}
          max={max}
          step={step}
          value={value}
          tooltip={{ open: false }}
          ariaLabelForHandle={label}
          onChange={(v) => drag(to(v))}
          onChangeComplete={(v) => tell(to(v))}
        />
      </label>
    ));
  const signed = (v: number) => (v > 0 ? `+${v}` : `${v}`);
  switch (now.kind) {
    case 'levels': {
      const levels = now[channel] ?? PLAIN_LEVELS;
      const to = (changes: Partial<Levels>): Adjustment => ({ ...now, [channel]: { ...levels, ...changes } });
      return (
        <>
          <Segmented size="small" options={CHANNELS} value={channel} onChange={setChannel} aria-label="Channel" />
          <Histogram
            below={layer.id}
            photo={beside ? photo : undefined}
            channel={channel}
            marks={[levels.black, levels.black + (levels.white - levels.black) * 0.5 ** levels.gamma, levels.white]}
          />
          {photo && (
            <Checkbox checked={beside} onChange={(event) => setBeside(event.target.checked)}>
              The chosen photo, as a line
            </Checkbox>
          )}
          <Slider
            range
            min={0}
            max={1}
            step={1 / 255}
            value={[levels.black, levels.white]}
            tooltip={{ formatter: (v) => Math.round((v ?? 0) * 255) }}
            ariaLabelForHandle={['Black', 'White']}
            onChange={([black, white]) => drag(to({ black, white }))}
            onChangeComplete={([black, white]) => tell(to({ black, white }))}
          />
          {dials([
            {
              label: 'Middle',
              value: Math.log2(levels.gamma),
              min: -2,
              max: 2,
              step: 0.02,
              say: levels.gamma.toFixed(2),
              to: (v) => to({ gamma: Math.round(2 ** v * 100) / 100 }),
            },
          ])}
          <span>Comes out between</span>
          <Slider
            range
            min={0}
            max={1}
            step={1 / 255}
            value={[levels.outBlack, levels.outWhite]}
            tooltip={{ formatter: (v) => Math.round((v ?? 0) * 255) }}
            ariaLabelForHandle={['Darkest', 'Lightest']}
            onChange={([outBlack, outWhite]) => drag(to({ outBlack, outWhite }))}
            onChangeComplete={([outBlack, outWhite]) => tell(to({ outBlack, outWhite }))}
          />
          <Button size="small" onClick={() => tell(adjustmentSchema.parse({ kind: 'levels' }))}>
            As it was
          </Button>
        </>
      );
    }
    case 'curves':
      return (
        <>
          <Segmented size="small" options={CHANNELS} value={channel} onChange={setChannel} aria-label="Channel" />
          <CurveBox
            points={now[channel] ?? PLAIN_CURVE}
            onDrag={(points) => drag({ ...now, [channel]: points })}
            onSet={(points) => tell({ ...now, [channel]: points })}
          />
          <Button size="small" onClick={() => tell({ kind: 'curves' })}>
            As it was
          </Button>
        </>
      );
    case 'hue':
      return dials([
        {
          label: 'Hue',
          value: now.turn,
          min: -180,
          max: 180,
          step: 1,
          say: `${signed(now.turn)}°`,
          to: (turn) => ({ ...now, turn }),
        },
        {
          label: 'Saturation',
          value: now.saturation,
          min: -1,
          max: 1,
          step: 0.01,
          say: signed(Math.round(now.saturation * 100)),
          to: (saturation) => ({ ...now, saturation }),
        },
        {
          label: 'Lightness',
          value: now.lightness,
          min: -1,
          max: 1,
          step: 0.01,
          say: signed(Math.round(now.lightness * 100)),
          to: (lightness) => ({ ...now, lightness }),
        },
      ]);
    case 'warmth':
      return dials([
        {
          label: 'Warmth',
          value: now.warmth,
          min: -1,
          max: 1,
          step: 0.01,
          say:
            now.warmth === 0
              ? 'as it is'
              : `${Math.round(Math.abs(now.warmth) * 100)} ${now.warmth < 0 ? 'cooler' : 'warmer'}`,
          to: (warmth) => ({ ...now, warmth }),
        },
        {
          label: 'Tint',
          value: now.tint,
          min: -1,
          max: 1,
          step: 0.01,
          say:
            now.tint === 0 ? 'none' : `${Math.round(Math.abs(now.tint) * 100)} ${now.tint < 0 ? 'greener' : 'rosier'}`,
          to: (tint) => ({ ...now, tint }),
        },
      ]);
    case 'blur':
      return dials([
        {
          label: 'Width',
          value: Math.sqrt(now.radiusMm),
          min: 0.3,
          max: 5,
          step: 0.05,
          say: `${now.radiusMm.toFixed(1)} mm`,
          to: (v) => ({ ...now, radiusMm: Math.round(v * v * 10) / 10 }),
        },
      ]);
  }
}

const SIDE = 200;

/** A curve with points that are dragged; a click makes one, and one that is pulled out is gone. */
function CurveBox({
  points,
  onDrag,
  onSet,
}: {
  points: Curve;
  onDrag: (points: Curve) => void;
  onSet: (points: Curve) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<{ rest: Curve; ends: boolean; points: Curve } | undefined>(undefined);
  const at = (event: PointerEvent): [number, number] => {
    const p = placeIn(svg.current!, event);
    const { width } = svg.current!.getBoundingClientRect();
    return [p.x / width, 1 - p.y / width];
  };
  const clamp = (v: number) => Math.round(Math.max(0, Math.min(1, v)) * 1000) / 1000;
  const curve = curveThrough(points);
  const path = Array.from(
    { length: 81 },
    (_, i) => `${i ? 'L' : 'M'}${(i / 80) * SIDE} ${(1 - curve(i / 80)) * SIDE}`,
  ).join('');
  const follow = (event: PointerEvent) => {
    if (!held.current) return;
    const [x, y] = at(event);
    const { rest, ends } = held.current;
    // pulled far out of the box it goes, but for the ends
    const out = !ends && (y < -0.15 || y > 1.15 || x < -0.1 || x > 1.1);
    const next = (out ? rest : [...rest, [clamp(x), clamp(y)] as [number, number]]).toSorted((a, b) => a[0] - b[0]);
    held.current.points = next;
    onDrag(next);
  };
  useHand(svg, true, {
    down: (event) => {
      const [x, y] = at(event);
      const near = points.findIndex(([px, py]) => Math.hypot(px - x, py - y) < 0.06);
      const rest = points.filter((_, i) => i !== near);
      held.current = { rest, ends: near === 0 || near === points.length - 1, points };
      if (near < 0 && points.length >= 16) held.current = undefined;
      follow(event);
      return true;
    },
    move: follow,
    up: () => {
      if (held.current) onSet(held.current.points);
      held.current = undefined;
    },
  });
  return (
    <svg ref={svg} viewBox={`0 0 ${SIDE} ${SIDE}`} className={styles.curve} role="img" aria-label="Curve">
      {[1, 2, 3].map((i) => (
        <path key={i} className={styles.grid} d={`M${(i * SIDE) / 4} 0V${SIDE}M0 ${(i * SIDE) / 4}H${SIDE}`} />
      ))}
      <path className={styles.line} d={path} />
      {points.map(([x, y], i) => (
        <circle key={i} cx={x * SIDE} cy={(1 - y) * SIDE} r={5} />
      ))}
    </svg>
  );
}
