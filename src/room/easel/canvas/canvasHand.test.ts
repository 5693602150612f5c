// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { EngineClient } from '@/engine/client';
import { onEasel } from '@/room/testEasel';
import { useEasel } from '@/room/easel/easelStore';
import { CanvasHand } from './canvasHand';
import { hold, letGo } from './holds';

let said: string[] = [];
let hand: CanvasHand;
const at = (pointerType: string, pointerId: number, x: number, y: number, button = 0) =>
  ({
    pointerType,
    pointerId,
    clientX: x,
    clientY: y,
    button,
    pressure: 0.5,
    timeStamp: x,
    shiftKey: false,
  }) as PointerEvent;
/** A pointer comes down, goes along a way, and is lifted unless it stays. */
const goes = (type: string, id: number, way: readonly (readonly [number, number])[], stays = false) => {
  const [first, ...rest] = way.map(([x, y]) => at(type, id, x, y));
  hand.down(first);
  for (const event of rest) {
    hand.move(event);
    hand.readings(event);
  }
  if (!stays) hand.up(rest.at(-1) ?? first);
};
const WAY = [
  [10, 10],
  [20, 10],
  [40, 12],
] as const;

beforeEach(() => {
  vi.useFakeTimers();
  onEasel();
  letGo();
  said = [];
  const { engine } = useEasel.getState();
  const told: Partial<EngineClient> = {
    ...engine,
    beginStroke: () => void said.push('begin'),
    addSamples: (samples) => void said.push(`${samples.length}`),
    endStroke: () => void said.push('end'),
    ask: (question) => {
      said.push(`ask ${question.of}`);
      return Promise.resolve(null) as never;
    },
  };
  useEasel.setState({ engine: told as EngineClient });
  hand = new CanvasHand(document.createElement('div'), told as EngineClient, () => {});
});
afterEach(() => {
  hand.dispose();
  vi.useRealTimers();
});

describe('the hand over the canvas', () => {
  it.each(['pen', 'mouse'])('paints with a %s from where it comes down', (type) => {
    goes(type, 1, WAY);
    expect(said).toEqual(['begin', '1', '1', '1', 'end']);
  });

  it('paints with a finger that moves, stays or taps, and loses none of its way', () => {
    goes('touch', 1, WAY);
    expect(said).toEqual(['begin', '1', '1', '1', 'end']);
    said = [];
    hand.down(at('touch', 2, 10, 10));
    vi.advanceTimersByTime(200);
    expect(said).toEqual(['begin', '1']);
    hand.up(at('touch', 2, 10, 10));
    said = [];
    goes('touch', 3, [[5, 5]]);
    expect(said).toEqual(['begin', '1', 'end']);
  });

  it('does not paint with two fingers, and does again with one after them', () => {
    hand.down(at('touch', 1, 10, 10));
    hand.down(at('touch', 2, 90, 10));
    for (const id of [1, 2]) hand.move(at('touch', id, 60, 40));
    vi.advanceTimersByTime(500);
    for (const id of [1, 2]) hand.up(at('touch', id, 60, 40));
    expect(said).toEqual([]);
    goes('touch', 3, WAY);
    expect(said[0]).toBe('begin');
  });

  it('takes a finger’s stroke back when a second one comes late to move the view, but not later than that', () => {
    const undone = vi.fn();
    const { apply } = useEasel.getState();
    useEasel.setState({ apply: undone });
    hand.down(at('touch', 1, 10, 10));
    vi.advanceTimersByTime(200);
    expect(hand.paints).toBe(true);
    hand.down({ ...at('touch', 2, 90, 10), timeStamp: 300 });
    expect(said.at(-1)).toBe('end');
    expect(undone).toHaveBeenCalledWith({ do: 'undo', hand: 'stays' });
    expect(hand.paints).toBe(false);
    for (const id of [1, 2]) hand.up(at('touch', id, 60, 40));
    goes('touch', 3, WAY, true);
    hand.down({ ...at('touch', 4, 90, 10), timeStamp: 3000 });
    expect(hand.paints).toBe(true);
    expect(undone).toHaveBeenCalledTimes(1);
    useEasel.setState({ apply });
  });

  it('heeds no palm beside a pen, nor a finger once a pen has painted: that moves the view', () => {
    goes('pen', 1, WAY, true);
    said = [];
    goes('touch', 2, WAY);
    expect(said).toEqual([]);
    expect(hand.paints).toBe(true);
    hand.up(at('pen', 1, 40, 12));
    expect(said).toEqual(['end']);
    said = [];
    expect(hand.movesView(at('touch', 3, 5, 5))).toBe(true);
    goes('touch', 3, WAY);
    expect(said).toEqual([]);
  });

  it.each(['pen', 'mouse', 'touch'])('samples with a %s while that is held, also after a pen', async (type) => {
    goes('pen', 9, WAY);
    said = [];
    hold('sample', true);
    expect(hand.movesView(at(type, 1, 10, 10))).toBe(false);
    goes(type, 1, [[10, 10]]);
    expect(said).toEqual(['ask spot']);
    await vi.advanceTimersByTimeAsync(1);
    hold('sample', false);
  });

  it('moves the view with the middle button or what is held, and paints nothing', () => {
    expect(hand.movesView(at('mouse', 1, 5, 5, 1))).toBe(true);
    hold('view', true);
    goes('mouse', 1, WAY);
    expect(said).toEqual([]);
    hold('view', false);
  });

  it('drags size and strength from where they were, and goes on from there', () => {
    const { studio } = onEasel();
    const size = studio.tools.current.sizeMm;
    hold('size', true);
    hand.move(at('mouse', 1, 100, 5));
    hand.move(at('mouse', 1, 100 + 150 * Math.LN2, 5));
    expect(studio.tools.current.sizeMm).toBeCloseTo(2 * size, 0);
    hand.move(at('mouse', 1, 100, 5));
    expect(studio.tools.current.sizeMm).toBeCloseTo(size, 1);
    hold('size', false);
    hand.move(at('mouse', 1, 300, 5));
    expect(studio.tools.current.sizeMm).toBeCloseTo(size, 1);
    hold('strength', true);
    const strength = studio.tools.current.strength;
    hand.move(at('mouse', 1, 300, 5));
    hand.move(at('mouse', 1, 250, 5));
    expect(studio.tools.current.strength).toBeCloseTo(strength - 0.2, 2);
    hold('strength', false);
  });

  it('ends its stroke when the painting is put away', () => {
    goes('pen', 1, WAY, true);
    hand.dispose();
    expect(said.at(-1)).toBe('end');
  });
});
