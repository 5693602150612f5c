'use client';
import { Button, Checkbox, Select } from 'antd';
import { useRef, useState } from 'react';
import { DIVISION_KINDS, DIVISIONS, type DivisionKind } from '@/core/study/divisions';
import type { LeadingLine } from '@/core/study/looking/directions';
import { placeWords } from '@/core/study/looking/differences';
import { useFocus } from './focusStore';
import styles from './study.module.css';

/** What is laid over the canvas while its pull is looked at. */
export interface OverPull {
  readonly divisions?: DivisionKind | 'own';
  readonly leading: boolean;
}

/** Divisions, own lines and leading lines over the canvas. @param aspect width over height */
export function LinesOver({
  over: { divisions, leading },
  lines,
  aspect,
}: {
  over: OverPull;
  lines: readonly LeadingLine[];
  aspect: number;
}) {
  const own = useFocus((s) => s.lines);
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<readonly [number, number, number, number]>();
  const at = ({ clientX, clientY }: React.PointerEvent): readonly [number, number] => {
    const { left, top, width, height } = svg.current!.getBoundingClientRect();
    const within = (v: number) => Math.round(1e4 * Math.max(0, Math.min(1, v))) / 1e4;
    return [within((clientX - left) / width), within((clientY - top) / height)];
  };
  const shown = divisions === 'own' ? own : divisions ? DIVISIONS[divisions].lines(aspect) : [];
  const draws = divisions === 'own';
  // leading lines are in shares of the longer side
  const [kx, ky] = aspect >= 1 ? [1, aspect] : [1 / aspect, 1];
  const line = ([x0, y0, x1, y1]: readonly number[], key: number | string, className: string) => (
    <line
      key={key}
      x1={`${100 * x0}%`}
      y1={`${100 * y0}%`}
      x2={`${100 * x1}%`}
      y2={`${100 * y1}%`}
      className={className}
    />
  );
  return (
    <svg
      ref={svg}
      className={styles.linesOver}
      data-testid="lines-over"
      style={draws ? { pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' } : undefined}
      onClick={(event) => draws && event.stopPropagation()}
      onPointerDown={(event) => {
        if (!draws) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrawn([...at(event), ...at(event)]);
      }}
      onPointerMove={(event) => drawn && setDrawn([drawn[0], drawn[1], ...at(event)])}
      onPointerUp={() => {
        if (drawn && Math.hypot(drawn[2] - drawn[0], drawn[3] - drawn[1]) > 0.03)
          useFocus.getState().setLines([...own, [...drawn]]);
        setDrawn(undefined);
      }}
    >
      {shown.map((l, i) => line(l, i, styles.division))}
      {drawn && line(drawn, 'drawn', styles.division)}
      {leading &&
        lines.map(({ from, to, ends: [a, b] }, i) => (
          <g key={`l${i}`}>
            {line([a.x * kx, a.y * ky, b.x * kx, b.y * ky], 'far', styles.prolonged)}
            {line([from.x * kx, from.y * ky, to.x * kx, to.y * ky], 'near', styles.leading)}
          </g>
        ))}
    </svg>
  );
}

const where = (x: number, y: number) => {
  const third = (v: number) => Math.max(0, Math.min(2, Math.floor(3 * v)));
  return placeWords(third(x), third(y), 3, 3);
};

/** Chooses what lies over the canvas, and says where strong directions lead. */
export function OverPullChoice({
  over,
  set,
  lines,
  aspect,
}: {
  over: OverPull;
  set: (over: OverPull) => void;
  lines: readonly LeadingLine[];
  aspect: number;
}) {
  const own = useFocus((s) => s.lines);
  const [kx, ky] = aspect >= 1 ? [1, aspect] : [1 / aspect, 1];
  return (
    <>
      <h3>Lines</h3>
      <div className={styles.overChoice}>
        <Select
          size="small"
          aria-label="Divisions"
          value={over.divisions ?? 'none'}
          onChange={(value: DivisionKind | 'own' | 'none') =>
            set({ ...over, divisions: value === 'none' ? undefined : value })
          }
          options={[
            { value: 'none' as const, label: 'No divisions' },
            ...DIVISION_KINDS.map((value) => ({ value, label: DIVISIONS[value].name })),
            { value: 'own' as const, label: 'Own lines' },
          ]}
        />
        <Checkbox checked={over.leading} onChange={(e) => set({ ...over, leading: e.target.checked })}>
          Where lines lead
        </Checkbox>
        {over.divisions === 'own' &&
          (own.length > 0 ? (
            <Button size="small" onClick={() => useFocus.getState().setLines([])}>
              Clear own lines
            </Button>
          ) : (
            <span className="quiet">Draw them on the canvas.</span>
          ))}
      </div>
      {over.leading && (
        <ul>
          {lines.map(({ ends: [a, b], share }, i) => (
            <li key={i}>
              from {where(a.x * kx, a.y * ky)} to {where(b.x * kx, b.y * ky)}{' '}
              <span className="quiet">{Math.max(1, Math.round(100 * share))} % of all edges</span>
            </li>
          ))}
          {lines.length === 0 && <li>No direction is strong and straight.</li>}
        </ul>
      )}
    </>
  );
}
