'use client';
import { Button, Segmented, Slider, Tooltip } from 'antd';
import { useState } from 'react';
import { linearToHex } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { brushForm, kindOf, type ToolSettings } from '@/core/marks/tools';
import { recipeWords } from '../parts/recipeWords';
import { JAR, useEasel } from './easelStore';
import styles from './easel.module.css';

/** Sizes on the rule, mm: the slider runs evenly over their logarithm. */
const LEAST_MM = 0.3;
const MOST_MM = 80;
const toRule = (mm: number) => Math.log(mm / LEAST_MM) / Math.log(MOST_MM / LEAST_MM);
const fromRule = (s: number) => {
  const mm = LEAST_MM * Math.pow(MOST_MM / LEAST_MM, s);
  return mm < 10 ? Math.round(mm * 10) / 10 : Math.round(mm);
};

/** Everything about the tool in hand, to be read without a click. */
export function InHand() {
  const bench = useEasel((s) => s.bench);
  const { apply, reload } = useEasel.getState();
  if (!bench) return <section className={styles.inHand} aria-label="In hand" />;
  const { tool: settings, level, mixture } = bench;
  const tool = { kind: kindOf(settings.tool) };
  const brush = tool.kind === 'brush';
  const layer = bench.layers.find((l) => l.id === bench.activeLayer);
  const carries = Object.keys(mixture).length > 0 && level > 0.002;
  const set = (changes: Partial<ToolSettings>) => apply({ do: 'tool', tool: settings.tool, ...changes });
  const name = JAR.find((t) => t.id === settings.tool)?.name ?? settings.tool;
  const on = layer
    ? `on: ${layer.name}${layer.kind === 'paint' ? (layer.wet ? ', wet' : layer.dry ? ', dry' : ', bare') : ''}${layer.visible ? '' : ', hidden'}`
    : '';

  return (
    <section className={styles.inHand} aria-label="In hand">
      <div className={styles.tip}>
        <BrushTip
          settings={settings}
          colour={carries ? linearToHex(masstoneLinear(mixture)) : undefined}
          level={level}
        />
        <div className={styles.tipWords}>
          <h3>{name}</h3>
          <span data-testid="carried" className={styles.recipe} title={carries ? recipeWords(mixture) : undefined}>
            {brush
              ? carries
                ? recipeWords(mixture)
                : 'clean'
              : tool.kind === 'pencil'
                ? 'graphite'
                : `${settings.tip} tip`}
          </span>
          <span className="quiet">{on}</span>
        </div>
        {brush && (
          <div className={styles.hands}>
            <Tooltip title="Load it again (R)">
              <Button onClick={reload}>Reload</Button>
            </Tooltip>
            <Tooltip title="Wipe it on a rag: it stays a little dirty (W)">
              <Button onClick={() => apply({ do: 'wipe' })}>Wipe</Button>
            </Tooltip>
            <Tooltip title="Rinse it clean (Q)">
              <Button onClick={() => apply({ do: 'rinse' })}>Rinse</Button>
            </Tooltip>
          </div>
        )}
      </div>
      <div className={styles.controls}>
        <Dial
          label="Size"
          value={toRule(settings.sizeMm)}
          say={(v) => `${fromRule(v)} mm`}
          onSet={(v) => set({ sizeMm: fromRule(v) })}
        />
        <Dial
          label="Strength"
          value={settings.strength}
          say={percent}
          onSet={(strength) => set({ strength: Math.max(0.02, round(strength)) })}
        />
        {brush && (
          <>
            <Dial
              label="Lay – blend"
              value={settings.blend}
              say={percent}
              onSet={(blend) => set({ blend: round(blend) })}
            />
            <Dial
              label="Body"
              value={settings.body}
              say={(v) => (v < 0.25 ? 'fluid' : v < 0.7 ? 'normal' : 'stiff')}
              onSet={(body) => set({ body: round(body) })}
              hint="How stiff the paint is that is loaded next"
            />
            <Dial
              label="Medium"
              value={settings.thin}
              say={percent}
              onSet={(thin) => set({ thin: Math.min(0.97, round(thin)) })}
              hint="Share of medium in the paint that is loaded next"
            />
          </>
        )}
        {tool.kind === 'eraser' && (
          <Segmented
            options={[
              { value: 'hard', label: 'Hard tip' },
              { value: 'soft', label: 'Soft tip' },
            ]}
            value={settings.tip}
            onChange={(tip) => set({ tip: tip as 'hard' | 'soft' })}
          />
        )}
      </div>
    </section>
  );
}

const percent = (v: number) => `${Math.round(v * 100)} %`;
const round = (v: number) => Math.round(v * 100) / 100;

/** A slider that follows the hand at once and tells the engine when it is let go. */
function Dial({
  label,
  value,
  say,
  onSet,
  hint,
}: {
  label: string;
  value: number;
  say: (value: number) => string;
  onSet: (value: number) => void;
  hint?: string;
}) {
  const [held, setHeld] = useState<number>();
  const shown = held ?? value;
  return (
    <div className={styles.dial}>
      <Tooltip title={hint}>
        <span>{label}</span>
      </Tooltip>
      <Slider
        min={0}
        max={1}
        step={0.01}
        value={shown}
        tooltip={{ open: false }}
        ariaLabelForHandle={label}
        onChange={setHeld}
        onChangeComplete={(v) => {
          setHeld(undefined);
          onSet(v);
        }}
      />
      <span className="fact">{say(shown)}</span>
    </div>
  );
}

/** The tip of the brush from the side, with the paint that is on it. */
function BrushTip({ settings, colour, level }: { settings: ToolSettings; colour: string | undefined; level: number }) {
  const tool = { kind: kindOf(settings.tool) };
  const hair = '#b08f5f';
  if (tool.kind === 'pencil') {
    return (
      <svg viewBox="0 0 60 90" className={styles.tipPicture} aria-hidden="true">
        <path d="M18 0h24v38l-12 34-12-34z" fill="#c9a878" />
        <path d="M26 60h8l-4 13z" fill="#3c3c3e" />
        <path d="M18 0h24v30H18z" fill="#5d6b66" />
      </svg>
    );
  }
  if (tool.kind === 'eraser') {
    return (
      <svg viewBox="0 0 60 90" className={styles.tipPicture} aria-hidden="true">
        <path
          d={settings.tip === 'hard' ? 'M12 8h36v62H12z' : 'M12 8h36v44q0 24-18 24T12 52z'}
          fill="#cfc4b4"
          stroke="#8d8271"
        />
      </svg>
    );
  }
  const { shape } = brushForm(settings);
  const outline =
    shape === 'flat'
      ? 'M12 26h36l2 50q-20 5-40 0z'
      : shape === 'filbert'
        ? 'M14 26h32q4 22 0 36-6 20-16 20T14 62q-4-14 0-36z'
        : shape === 'round'
          ? 'M20 26h20q6 22 0 38-4 14-10 22-6-8-10-22-6-16 0-38z'
          : 'M16 26h28q10 18 8 36-6 16-22 16T8 62q-2-18 8-36z';
  const full = Math.max(0, Math.min(1, level));
  return (
    <svg viewBox="0 0 60 90" className={styles.tipPicture} aria-hidden="true">
      <defs>
        <clipPath id="tuft">
          <path d={outline} />
        </clipPath>
      </defs>
      <rect x={22} y={0} width={16} height={12} fill="#6d4f35" />
      <path d="M20 10h20l4 18H16z" fill="#a9aaa6" />
      <path d={outline} fill={hair} />
      {colour && <rect x={0} y={86 - 14 - full * 44} width={60} height={90} fill={colour} clipPath="url(#tuft)" />}
      <rect x={55} y={26} width={4} height={58} fill="#c3bfb7" />
      <rect
        x={55}
        y={84 - full * 58}
        width={4}
        height={full * 58}
        fill={colour ?? 'none'}
        stroke="#57544e"
        strokeWidth={0.4}
      >
        <title>{`Load ${Math.round(full * 100)} %`}</title>
      </rect>
    </svg>
  );
}
