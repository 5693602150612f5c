import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { commandSchema, type Command } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { line, loaded, studioFor } from '@/measure/bench';
import { Keeping } from '@/engine/keeping/keeping';
import { ReadyUndo } from './readyUndo';
import { writePainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';

const QUIET = { kept() {}, refused() {} };
const pause = () => new Promise((resolve) => setTimeout(resolve, 5));

/** A painting of so many strokes that was closed and is opened again from its snapshot; and its states, the last one last. */
async function opened(id: string, strokes: number, kind: 'linen-fine' | 'paper-cold' = 'linen-fine') {
  const { spec } = studioFor(40, 30, { surface: { kind } });
  const record: PaintingRecord = { id, title: id, createdAt: 1, spec, photos: [] };
  await writePainting(record);
  const { studio, keeping } = await Keeping.open(record, QUIET);
  const states: string[] = [];
  const act = (command: object) => {
    const parsed: Command = commandSchema.parse(command);
    studio.apply(parsed);
    keeping.append(parsed);
    states.push(digest(studio));
  };
  for (const command of loaded(kind === 'linen-fine' ? 'flat' : 'wash-round', 6, { PB29: 1 })) act(command);
  states.splice(0, states.length - 1);
  const keep = async () => {
    await keeping.stored();
    keeping.beginSnapshot(studio);
    while (!(await keeping.continueSnapshot())) continue;
  };
  for (let i = 0; i < strokes; i++) {
    if (i === strokes - 23) await keep();
    act(line(4, 4 + ((i * 7) % 22), 36, 6 + ((i * 5) % 20)));
  }
  await keep();
  const again = await Keeping.open(record, QUIET);
  expect(again.rest).toEqual([]);
  return { ...again, states };
}

describe('steps that are made ready to be taken back', () => {
  it('are at hand after a painting was opened, and the state is the one from before each', async () => {
    const { studio, keeping, states } = await opened('ready', 40);
    expect(studio.timeline.farWay('undo')).toBeDefined();
    const ready = new ReadyUndo(studio, keeping);
    expect(ready.run(0)).toBe(false); // the hand is not at rest
    ready.run(2000);
    while (!ready.run(2000)) await pause();
    while (ready.run(2000)) expect(digest(studio)).toBe(states.at(-1)); // nothing is seen of it
    for (let i = 0; i < 20; i++) {
      expect(studio.timeline.farWay('undo')).toBeUndefined();
      studio.apply({ do: 'undo' });
      states.pop();
      expect(digest(studio)).toBe(states.at(-1));
    }
  });

  it('are begun soon where nobody has touched the painting, and can be hurried on', async () => {
    const { studio, keeping, states } = await opened('hurried', 30);
    const ready = new ReadyUndo(studio, keeping);
    expect(ready.run(500, true)).toBe(false);
    expect(ready.left).toBe(0);
    for (let i = 0; i < 20; i++) await pause();
    expect(ready.run(500, true)).toBe(false); // it has not been begun
    ready.run(500, false);
    while (ready.left === 0) await pause();
    while (ready.left > 0) ready.paint();
    ready.arrive();
    expect(studio.timeline.farWay('undo')).toBeUndefined();
    studio.apply({ do: 'undo' });
    expect(digest(studio)).toBe(states.at(-2));
  });

  it('are those from before the first stroke that was painted since; a painting without any needs none', async () => {
    const { studio, keeping, states } = await opened('painted-on', 30);
    for (const y of [5, 9]) {
      studio.apply(commandSchema.parse(line(6, y, 30, y + 4)));
      states.push(digest(studio));
    }
    const ready = new ReadyUndo(studio, keeping);
    ready.run(2000);
    while (!ready.run(2000)) await pause();
    while (ready.run(2000)) continue;
    for (let i = 0; i < 22; i++) {
      expect(studio.timeline.farWay('undo')).toBeUndefined();
      studio.apply({ do: 'undo' });
      states.pop();
      expect(digest(studio)).toBe(states.at(-1));
    }
    const bare = await opened('bare', 0);
    expect(bare.studio.timeline.beforeKept).toEqual([]);
    const none = new ReadyUndo(bare.studio, bare.keeping);
    none.run(2000);
    for (let i = 0; i < 5; i++) await pause();
    expect(none.run(2000)).toBe(false);
  });

  it('are given up when something else goes back meanwhile, and while water flows', async () => {
    const { studio, keeping } = await opened('given-up', 30);
    const ready = new ReadyUndo(studio, keeping);
    ready.run(2000);
    while (!ready.run(2000)) await pause();
    ready.stop();
    expect(ready.run(2000)).toBe(false);
    expect(studio.timeline.farWay('undo')).toBeDefined();
    const wet = await opened('wet', 24, 'paper-cold');
    expect(wet.studio.time.hasWater).toBe(true);
    const later = new ReadyUndo(wet.studio, wet.keeping);
    later.run(2000);
    for (let i = 0; i < 20; i++) await pause();
    expect(later.run(2000)).toBe(false);
  });
});
