import { describe, expect, it } from 'vitest';
import { useCompare } from '@/room/easel/compare/compareStore';
import { useEasel } from '@/room/easel/easelStore';
import { useSight } from '@/room/easel/sighting/sightStore';
import { heldKeys, letGo } from './heldKeys';

describe('keys that are held', () => {
  it('are let go of when the window has the keys no more, with all that they showed', () => {
    const without: (readonly string[])[] = [];
    useEasel.setState({
      sampling: true,
      engine: { without: (layers: readonly string[]) => without.push(layers) } as never,
    });
    Object.assign(heldKeys, { space: true, sample: true, strength: true, compare: true });
    useCompare.getState().hold(true);
    useSight.getState().set({ held: true });
    letGo();
    expect(Object.values(heldKeys)).toEqual([false, false, false, false]);
    expect(useEasel.getState().sampling).toBe(false);
    expect(useCompare.getState().held).toBeFalsy();
    expect(useSight.getState().held).toBe(false);
    expect(without).toEqual([[]]);
  });
});
