// @vitest-environment jsdom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { OPEN_EYES } from '@/core/picture/aids/definition';
import { NO_RULES } from '@/core/commands/houseRules';
import { line } from '@/measure/bench';
import { onEasel } from '@/room/testEasel';
import { usePalette } from '@/room/colour/paletteStore';
import { isHeld, letGo } from '@/room/easel/canvas/holds';
import { useEasel } from '@/room/easel/easelStore';
import { takeTool } from '@/room/easel/hand/taking';
import { useSight } from '@/room/easel/sighting/sightStore';
import { Ledge } from './Ledge';
import { nearest } from './LayerChip';
import { LIMITS } from './limits';

const button = (name: string | RegExp) => screen.getByRole('button', { name });
const limits = () => screen.queryAllByRole('button', { name: /^End: / }).map((b) => b.getAttribute('aria-label'));
const press = (name: string, timeStamp: number) => {
  const event = new MouseEvent('pointerdown', { bubbles: true, cancelable: true, button: 0 });
  Object.defineProperty(event, 'timeStamp', { value: timeStamp });
  fireEvent(button(name), event);
};
const release = (name: string, timeStamp: number) => {
  const event = new MouseEvent('pointerup', { bubbles: true, button: 0 });
  Object.defineProperty(event, 'timeStamp', { value: timeStamp });
  fireEvent(button(name), event);
};

beforeEach(() => {
  onEasel();
  letGo();
  useSight.setState({ steady: 0, guide: undefined });
  usePalette.setState({ rules: NO_RULES });
  useEasel.setState({ aid: 'none', how: OPEN_EYES, oneLayer: false, asSeen: false });
});

describe('the ledge', () => {
  it('holds while it is pressed; a tap holds until the next', () => {
    render(<Ledge />);
    press('Sample', 1000);
    expect(isHeld('sample')).toBe(true);
    expect(useEasel.getState().sampling).toBe(true);
    release('Sample', 2000);
    expect(useEasel.getState().sampling).toBe(false);
    press('Compare', 3000);
    release('Compare', 3100);
    expect(isHeld('compare')).toBe(true);
    expect(button('Compare').getAttribute('aria-pressed')).toBe('true');
    press('Compare', 5000);
    release('Compare', 5050);
    expect(isHeld('compare')).toBe(false);
  });

  it('blends with the tool in hand while that is held, and gives it back as it was, whatever was taken meanwhile', () => {
    const { studio } = onEasel();
    render(<Ledge />);
    const before = studio.tools.settingsOf('flat').blend;
    press('Blend', 1000);
    expect(studio.tools.settingsOf('flat').blend).toBe(1);
    act(() => takeTool('round'));
    release('Blend', 2000);
    expect(studio.tools.settingsOf('flat').blend).toBe(before);
    expect(studio.tools.inHand).toBe('round');
  });

  it('takes a stroke back and leaves the hand alone', () => {
    const { studio } = onEasel();
    render(<Ledge />);
    expect((button('Undo') as HTMLButtonElement).disabled).toBe(true);
    act(() => {
      useEasel.getState().loadMixture({ PB29: 1 });
      useEasel.getState().apply(line(4, 6, 26, 6) as never);
      takeTool('round');
    });
    fireEvent.click(button('Undo'));
    expect(studio.tools.inHand).toBe('round');
    expect(studio.painting.active.tiles.some((tile) => tile?.volume)).toBe(false);
    fireEvent.click(button('Redo'));
    expect(studio.painting.active.tiles.some((tile) => tile?.volume)).toBe(true);
    expect(studio.tools.inHand).toBe('round');
  });

  it('says what is painted on, and goes to the layers around it', () => {
    onEasel();
    render(<Ledge />);
    fireEvent.click(button(/^On: Paint, empty/));
    fireEvent.click(button('New below'));
    const { layers, activeLayer } = useEasel.getState().bench!;
    expect(layers.findIndex(({ id }) => id === activeLayer)).toBe(1);
    fireEvent.click(button('Hide the sketch'));
    expect(useEasel.getState().bench!.layers[0].visible).toBe(false);
    fireEvent.click(button(/^Sketch/));
    expect(useEasel.getState().bench!.activeLayer).toBe(layers[0].id);
    expect(button(/^On: Sketch, drawing, hidden/)).toBeTruthy();
  });

  it('tells of everything that bends the hand, and ends it by a click', () => {
    onEasel();
    render(<Ledge />);
    expect(limits()).toEqual([]);
    act(() => {
      const { apply, toggleAid, setHow, view, set } = useEasel.getState();
      apply({ do: 'select', how: 'all', mode: 'new', edgeMm: 0, tolerance: 10, touching: true, byMm: 1 });
      apply({ do: 'layer.set', layer: 'L2', onlyPaint: true, wetThrough: true });
      toggleAid('values');
      setHow({ squintMm: 3 });
      set({ oneLayer: true, view: { ...view, mirror: true, turn: 0.5 } });
      useSight.setState({
        steady: 0.4,
        guides: [
          {
            kind: 'straight',
            points: [
              { x: 0, y: 0 },
              { x: 9, y: 0 },
            ],
          },
        ],
        guide: 0,
      });
    });
    // all but the painter's own rules, which are not ended by a click
    expect(limits()).toHaveLength(LIMITS.length - 1);
    for (const name of limits()) fireEvent.click(button(name!));
    expect(limits()).toEqual([]);
    expect(useEasel.getState().bench!.selection).toBe(0);
    expect(useEasel.getState().view).toMatchObject({ mirror: false });
    expect(Math.abs(useEasel.getState().view.turn)).toBeLessThan(1e-9);
    act(() => usePalette.setState({ rules: { ...NO_RULES, onlyTheseTubes: true, samplePhoto: false } }));
    expect(screen.getByText('rule: only these tubes, no sampling of photos')).toBeTruthy();
  });
});

it('the nearest layers are five, around the one that is painted on where there are more', () => {
  const layers = Array.from({ length: 9 }, (_, i) => ({ id: `L${i}` })) as never[];
  const ids = (active: string) => nearest(layers, active).map(({ id }) => id);
  expect(ids('L4')).toEqual(['L6', 'L5', 'L4', 'L3', 'L2']);
  expect(ids('L0')).toEqual(['L4', 'L3', 'L2', 'L1', 'L0']);
  expect(ids('L8')).toEqual(['L8', 'L7', 'L6', 'L5', 'L4']);
});
