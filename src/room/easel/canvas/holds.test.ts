import { describe, expect, it } from 'vitest';
import { useCompare } from '@/room/easel/compare/compareStore';
import { useEasel } from '@/room/easel/easelStore';
import { useSight } from '@/room/easel/sighting/sightStore';
import { hold, isHeld, letGo, useHolds } from './holds';

describe('keys that are held', () => {
  it('are let go of when the window has the keys no more, with all that they showed', () => {
    const without: (readonly string[])[] = [];
    useEasel.setState({
      sampling: true,
      engine: { without: (layers: readonly string[]) => without.push(layers) } as never,
    });
    for (const what of ['view', 'sample', 'strength', 'compare'] as const) hold(what, true);
    expect(isHeld('view')).toBe(true);
    expect(useCompare.getState().held).toBe(true);
    useSight.getState().set({ held: true });
    letGo();
    expect(Object.values(useHolds.getState()).some(Boolean)).toBe(false);
    expect(useEasel.getState().sampling).toBe(false);
    expect(useCompare.getState().held).toBeFalsy();
    expect(useSight.getState().held).toBe(false);
    expect(without).toEqual([[]]);
  });
});
