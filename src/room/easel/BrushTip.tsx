'use client';
import { brushForm, isWash, kindOf, washForm, type ToolSettings } from '@/core/marks/tools';
import type { BrushShape } from '@/core/marks/brushForms';
import styles from './easel.module.css';

const TUFT: Record<BrushShape, string> = {
  flat: 'M12 26h36l2 50q-20 5-40 0z',
  filbert: 'M14 26h32q4 22 0 36-6 20-16 20T14 62q-4-14 0-36z',
  round: 'M20 26h20q6 22 0 38-4 14-10 22-6-8-10-22-6-16 0-38z',
  dome: 'M16 26h28q10 18 8 36-6 16-22 16T8 62q-2-18 8-36z',
  fan: 'M24 26h12l20 40q-26 16-52 0z',
  roller: 'M6 34h48v30H6z',
};

/** Watercolour brushes: fuller bellies that come to a point or an edge. */
const WASH_TUFT = {
  round: 'M18 26h24q9 20 3 36-5 13-15 26-10-13-15-26-6-16 3-36z',
  bar: 'M8 26h44v48H8z',
  pores: 'M12 34q4-10 18-9 16-2 20 10 6 14-2 26-6 12-18 11-16 2-20-11-6-14 2-27z',
};

/** What else lies in the hand: body of the tool, drawn from the side. */
const OTHER: Record<
  | 'knife' | 'pencil' | 'stick' | 'finger' | 'kneaded' | 'eraser-hard' | 'eraser-soft' | 'spatter' | 'spray' | 'gel' | 'ink' | 'keep-off' | 'salt'
  | 'drops' | 'splatter', // prettier-ignore
  { d: string; fill: string }[]
> = {
  knife: [
    { d: 'M26 0h8v26h-8z', fill: '#6d4f35' },
    { d: 'M28 26h4l2 8h-8z', fill: '#a9aaa6' },
    { d: 'M24 34h12l6 30-12 22-12-22z', fill: '#c5c6c3' },
  ],
  pencil: [
    { d: 'M18 0h24v38l-12 34-12-34z', fill: '#c9a878' },
    { d: 'M26 60h8l-4 13z', fill: '#3c3c3e' },
    { d: 'M18 0h24v30H18z', fill: '#5d6b66' },
  ],
  stick: [{ d: 'M20 14h20v60H20z', fill: '#cfc4b4' }],
  finger: [
    { d: 'M18 0h24v52q-1 26-12 26T18 52z', fill: '#d9b79a' },
    { d: 'M22 54q8-6 16 0v10q-2 10-8 10t-8-10z', fill: '#ead0bc' },
  ],
  kneaded: [{ d: 'M14 34q6-14 18-12 14-2 16 12 6 16-4 28-12 10-22 4Q10 62 14 34z', fill: '#b7b5ae' }],
  'eraser-hard': [{ d: 'M12 8h36v62H12z', fill: '#cfc4b4' }],
  'eraser-soft': [{ d: 'M12 8h36v44q0 24-18 24T12 52z', fill: '#cfc4b4' }],
  spatter: [
    { d: 'M8 20h44v10H8z', fill: '#6d4f35' },
    { d: 'M10 30h40v16H10z', fill: '#b08f5f' },
    { d: 'M18 58h4v4h-4zM30 64h6v6h-6zM42 56h3v3h-3zM24 74h3v3h-3z', fill: '#57544e' },
  ],
  spray: [
    { d: 'M22 6h16v12H22z', fill: '#a9aaa6' },
    { d: 'M26 18h8l22 60H4z', fill: '#c3bfb7' },
  ],
  ink: [
    { d: 'M24 0h12v34H24z', fill: '#5d6b66' },
    { d: 'M24 34h12l-2 22-4 22-4-22z', fill: '#a9aaa6' },
    { d: 'M29 52h2v24h-2z', fill: '#3c3c3e' },
  ],
  'keep-off': [
    { d: 'M20 6h20v14H20z', fill: '#8d8271' },
    { d: 'M16 20h28v54H16z', fill: '#d9d3c0' },
    { d: 'M16 42h28v32H16z', fill: '#c3c8b4' },
  ],
  salt: [
    { d: 'M20 10h20v10H20z', fill: '#a9aaa6' },
    { d: 'M16 20h28l4 54H12z', fill: '#e8e6e1' },
    { d: 'M24 46h4v4h-4zM34 52h4v4h-4zM28 60h4v4h-4zM36 66h4v4h-4zM20 66h4v4h-4z', fill: '#8d8271' },
  ],
  drops: [
    { d: 'M24 0h12v22H24z', fill: '#7d5a3c' },
    { d: 'M26 22h8l-1 40h-6z', fill: '#dcd8cc' },
  ],
  splatter: [
    { d: 'M24 0h12v26H24z', fill: '#6d4f35' },
    { d: 'M22 26h16l-8 30z', fill: '#7d5a3c' },
    { d: 'M18 60h5v5h-5zM33 62h6v6h-6zM44 56h3v3h-3zM26 74h3v3h-3z', fill: '#57544e' },
  ],
  gel: [{ d: 'M14 14h32v10H14zM12 24h36v46q-18 8-36 0z', fill: '#dcd8cc' }],
};

/** The tip of the tool from the side, with the paint that is on it, and a gauge of its load. */
export function BrushTip({
  settings,
  colour,
  level,
}: {
  settings: ToolSettings;
  colour: string | undefined;
  level: number;
}) {
  const kind = kindOf(settings.tool);
  const full = Math.max(0, Math.min(1, level));
  const gauge = (
    <>
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
    </>
  );
  if (kind !== 'brush' && kind !== 'wash') {
    const pencil = settings.tool === 'graphite';
    const parts = OTHER[kind === 'eraser' ? (`eraser-${settings.tip}` as const) : pencil ? 'pencil' : kind];
    const holds = isWash(settings.tool) || kind === 'knife' || kind === 'spatter' || kind === 'spray';
    return (
      <svg viewBox="0 0 60 90" className={styles.tipPicture} aria-hidden="true">
        {parts.map(({ d, fill }, i) => (
          <path key={i} d={d} fill={fill} stroke="#8d8271" strokeWidth={0.6} />
        ))}
        {kind === 'knife' && colour && (
          <path d={`M${20 - full * 2} ${64 - full * 14}l10 ${22 + full * 14} 10-${22 + full * 14}z`} fill={colour} />
        )}
        {kind === 'stick' && !pencil && colour && (
          <path d="M20 14h20v60H20z" fill={colour} stroke="#8d8271" strokeWidth={0.6} />
        )}
        {kind === 'drops' && colour && <path d="M30 64q7 9 0 16-7-7 0-16z" fill={colour} />}
        {kind === 'splatter' && colour && <path d="M23 28h14l-7 27z" fill={colour} />}
        {kind === 'spray' && colour && <path d="M24 30h12l20 48H4z" fill={colour} opacity={0.35 + 0.5 * full} />}
        {kind === 'spatter' && colour && <path d={`M10 ${46 - full * 10}h40v${full * 10}H10z`} fill={colour} />}
        {holds && gauge}
      </svg>
    );
  }
  const outline = kind === 'wash' ? WASH_TUFT[washForm(settings.tool).shape] : TUFT[brushForm(settings).shape];
  return (
    <svg viewBox="0 0 60 90" className={styles.tipPicture} aria-hidden="true">
      <defs>
        <clipPath id="tuft">
          <path d={outline} />
        </clipPath>
      </defs>
      <rect x={22} y={0} width={16} height={12} fill="#6d4f35" />
      <path d="M20 10h20l4 18H16z" fill="#a9aaa6" />
      <path d={outline} fill={settings.hair === 'soft' || kind === 'wash' ? '#7d5a3c' : '#b08f5f'} />
      {colour && <rect x={0} y={72 - full * 44} width={60} height={90} fill={colour} clipPath="url(#tuft)" />}
      {gauge}
    </svg>
  );
}
