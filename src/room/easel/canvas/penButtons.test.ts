// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { act, render, screen } from '@testing-library/react';
import { createElement, useRef } from 'react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { EngineClient } from '@/engine/client';
import { useEasel } from '@/room/easel/easelStore';
import { takeTool } from '@/room/easel/hand/taking';
import { useLikings } from '@/room/likings';
import { onEasel, type TestEasel } from '@/room/testEasel';
import { CanvasHand } from './canvasHand';
import { EmptyTag, FirstWords } from './FirstWords';
import { isHeld, letGo } from './holds';

let easel: TestEasel;
let hand: CanvasHand;
let element: HTMLElement;
let said: string[];
const pen = (x: number, buttons: number, button = 0) =>
  ({
    pointerType: 'pen',
    pointerId: 1,
    clientX: x,
    clientY: 10,
    button,
    buttons,
    pressure: 0.5,
    timeStamp: x,
  }) as PointerEvent;
const inHand = () => easel.studio.tools.current.tool;

beforeEach(() => {
  easel = onEasel();
  letGo();
  said = [];
  useLikings.setState({ barrel: 'sample', eraser: 'rub', hasPainted: false });
  const told: Partial<EngineClient> = {
    ...useEasel.getState().engine,
    beginStroke: () => void said.push(`begin ${inHand()}`),
    addSamples: () => {},
    endStroke: () => void said.push('end'),
    ask: () => Promise.resolve(null) as never,
  };
  useEasel.setState({ engine: told as EngineClient, painter: 'here' });
  element = document.createElement('div');
  hand = new CanvasHand(element, told as EngineClient, () => {});
});
afterEach(() => hand.dispose());

describe('the pen', () => {
  it('samples while its barrel button is pressed, over the canvas and on it, and paints again afterwards', () => {
    hand.move(pen(5, 2));
    expect(isHeld('sample')).toBe(true);
    hand.down(pen(6, 3, 2));
    hand.up(pen(6, 2, 2));
    expect(said).toEqual([]);
    hand.move(pen(7, 0));
    expect(isHeld('sample')).toBe(false);
    hand.down(pen(8, 1));
    hand.up(pen(8, 0));
    expect(said).toEqual(['begin flat', 'end']);
  });

  it('blends with its button where that is set, and not beyond it', () => {
    useLikings.setState({ barrel: 'blend' });
    const { blend } = easel.studio.tools.current;
    hand.move(pen(5, 2));
    expect(easel.studio.tools.current.blend).toBe(1);
    hand.down(pen(6, 3, 2));
    hand.up(pen(7, 2, 2));
    expect(said).toEqual(['begin flat', 'end']);
    hand.leave();
    expect(easel.studio.tools.current.blend).toBe(blend);
  });

  it('does nothing with a button that is set to nothing', () => {
    useLikings.setState({ barrel: 'none' });
    hand.move(pen(5, 2));
    expect(isHeld('sample')).toBe(false);
  });

  it('rubs out with its other end, and gives the tool back', () => {
    hand.down(pen(6, 32, 5));
    expect(said).toEqual(['begin eraser']);
    hand.up(pen(6, 0, 5));
    expect(inHand()).toBe('flat');
  });

  it('paints with its other end where that is set', () => {
    useLikings.setState({ eraser: 'none' });
    hand.down(pen(6, 32, 5));
    hand.up(pen(6, 0, 5));
    expect(said).toEqual(['begin flat', 'end']);
  });
});

describe('the first words', () => {
  const Tagged = () => createElement(EmptyTag, { box: useRef(element as HTMLDivElement) });

  it('say what comes next on an untouched canvas, until something has been painted once', () => {
    render(createElement(FirstWords));
    expect(screen.getByRole('status').textContent).toMatch(/Load a tube/);
    act(() => useEasel.getState().loadMixture({ PB29: 1 }));
    expect(screen.getByRole('status').textContent).toMatch(/Now paint/);
    act(() => {
      hand.down(pen(6, 1));
      hand.up(pen(6, 0));
    });
    expect(screen.queryByRole('status')).toBeNull();
    expect(useLikings.getState().hasPainted).toBe(true);
  });

  it('say at the pointer that the brush is empty, only where it is', () => {
    render(createElement(Tagged));
    act(() => {
      hand.down(pen(6, 1));
      hand.up(pen(6, 0));
    });
    expect(screen.getByRole('status').textContent).toMatch(/no paint on it/);
  });

  it('are silent with paint on the brush, and over wet paint that it can move', () => {
    render(createElement(Tagged));
    act(() => useEasel.getState().loadMixture({ PB29: 1 }));
    act(() => {
      hand.down(pen(6, 1));
      hand.up(pen(6, 0));
    });
    expect(screen.queryByRole('status')).toBeNull();
    const { bench } = useEasel.getState();
    const layers = bench!.layers.map((layer) => ({ ...layer, wet: true }));
    act(() => useEasel.setState({ bench: { ...bench!, level: 0, layers } }));
    act(() => {
      hand.down(pen(6, 1));
      hand.up(pen(6, 0));
    });
    expect(screen.queryByRole('status')).toBeNull();
  });
});

describe('a colour that is chosen', () => {
  it('goes to the last tool that carries paint while a blender or the rub-out is in hand', () => {
    takeTool('filbert');
    useEasel.setState({ carrier: 'filbert' });
    takeTool('blender-soft');
    useEasel.getState().loadMixture({ PY43: 1 });
    expect(inHand()).toBe('filbert');
    takeTool('eraser');
    useEasel.getState().loadMixture({ PW6: 1 });
    expect(inHand()).toBe('filbert');
    expect(Object.keys(easel.studio.tools.carried().mixture)).toEqual(['PW6']);
  });
});
