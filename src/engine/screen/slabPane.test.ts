import { describe, expect, it } from 'vitest';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { studioFor } from '@/measure/bench';
import { SlabPane } from './slabPane';

const pane = () => {
  const studio = studioFor(40, 30);
  const slab = new SlabPane(studio.slab);
  const does = (command: CommandInput) => slab.changed(studio.apply(commandSchema.parse(command)).slab);
  return { studio, slab, does };
};

describe('the slab as the page sees it', () => {
  it('is sent whole when it is first looked at, and then only where it changed', () => {
    const { slab, does } = pane();
    expect(slab.frame()).toBeUndefined();
    slab.look(300, 150);
    const first = slab.frame()!;
    expect([first.x, first.y, first.width, first.height]).toEqual([0, 0, 300, 150]);
    expect(first.data).toHaveLength(300 * 150 * 4);
    slab.shown();
    expect(slab.frame()).toBeUndefined();
    does({ do: 'slab.squeeze', mixture: { PR188: 1 }, at: [75, 37], sizeMm: 10 });
    const part = slab.frame()!;
    expect(part.width * part.height).toBeLessThan(300 * 150 * 0.6);
    // the bead is red in the middle of what was sent
    const [u, v] = [150 - part.x, 75 - part.y];
    const [r, g] = part.data.subarray(4 * (v * part.width + u));
    expect(r).toBeGreaterThan(g + 60);
    expect(part.of).toEqual([300, 150]);
  });

  it('waits until the page has shown what came before, and forgets nothing meanwhile', () => {
    const { slab, does } = pane();
    slab.look(300, 150);
    expect(slab.frame()).toBeDefined();
    does({ do: 'slab.squeeze', mixture: { PW6: 1 }, at: [20, 20], sizeMm: 10 });
    expect(slab.frame()).toBeUndefined();
    does({ do: 'slab.squeeze', mixture: { PW6: 1 }, at: [130, 60], sizeMm: 10 });
    slab.shown();
    const both = slab.frame()!;
    expect(both.x).toBeLessThan(60);
    expect(both.x + both.width).toBeGreaterThan(240);
  });

  it('is lit as the painting is', () => {
    const { slab, does } = pane();
    slab.look(300, 150);
    does({ do: 'slab.squeeze', mixture: { PW6: 1 }, at: [75, 37], sizeMm: 14 });
    const before = slab.frame()!.data.slice();
    slab.shown();
    slab.light({ azimuth: 90, elevation: 12, room: 0.1, finish: 0.5, warmth: 0 });
    const after = slab.frame()!.data;
    expect(after.some((v, i) => Math.abs(v - before[i]) > 20)).toBe(true);
  });
});
