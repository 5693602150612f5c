// @vitest-environment jsdom
import { expect, it } from 'vitest';
import type { SpotReading } from '@/core/picture/readings';
import { useEasel } from '@/room/easel/easelStore';
import { readCanvas } from './spots';

it('of what a hand passes by only the newest is read while it waits; what it clicks is read in any case', async () => {
  const asked: number[] = [];
  const answers: (() => void)[] = [];
  const engine = {
    ask: ({ x }: { x: number }) => {
      asked.push(x);
      return new Promise((resolve) => answers.push(() => resolve({ x } as unknown as SpotReading)));
    },
  };
  useEasel.setState({
    engine: engine as never,
    opened: { width: 10, height: 10, spec: { ppi: 100 }, slab: {} } as never,
  });
  const read: number[] = [];
  const at = (x: number, meant = false) =>
    readCanvas(x, 0, (reading) => read.push((reading as never as { x: number }).x), meant);
  at(1);
  at(2);
  at(3, true);
  at(4);
  at(5, true);
  at(6);
  at(7);
  for (let i = 0; i < 12; i++) {
    answers.shift()?.();
    await new Promise((resolve) => setTimeout(resolve, 0));
  }
  expect(asked).toEqual([1, 3, 5, 7]);
  expect(read).toEqual(asked);
  // and the way is free again
  at(8);
  answers.shift()?.();
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(read.at(-1)).toBe(8);
});
