'use client';
import { Button, Tooltip } from 'antd';
import { useRef, type PointerEvent, type ReactNode } from 'react';
import { hold, useHolds, type Hold } from '@/room/easel/canvas/holds';

/** A press that is shorter than this stays down until it is pressed again, ms: for a hand that has nothing else free. */
const TAP_MS = 280;

/** Holds something for the other hand while it is pressed; a tap holds it until the next. */
export function HoldButton({ what, name, hint, icon }: { what: Hold; name: string; hint: string; icon: ReactNode }) {
  const held = useHolds((s) => s[what]);
  const press = useRef<{ readonly at: number; readonly was: boolean }>(undefined);
  const down = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    // the focus stays where it is: keys go on working
    event.preventDefault();
    // let go of anywhere, it is let go
    event.currentTarget.setPointerCapture(event.pointerId);
    press.current = { at: event.timeStamp, was: held };
    hold(what, true);
  };
  const up = (event: PointerEvent) => {
    const { current } = press;
    press.current = undefined;
    if (current && (current.was || event.timeStamp - current.at > TAP_MS)) hold(what, false);
  };
  return (
    <Tooltip title={hint} mouseEnterDelay={0.5}>
      <Button
        type={held ? 'primary' : 'text'}
        icon={icon}
        aria-label={name}
        aria-pressed={held}
        onPointerDown={down}
        onPointerUp={up}
        onPointerCancel={up}
        onLostPointerCapture={up}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          event.stopPropagation();
          if (!event.repeat) hold(what, !held);
        }}
        onContextMenu={(event) => event.preventDefault()}
      >
        {name}
      </Button>
    </Tooltip>
  );
}
