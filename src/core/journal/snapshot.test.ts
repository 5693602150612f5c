import { describe, expect, it } from 'vitest';
import { TOOL_IDS } from '@/core/tools/tools';
import { studioFor } from '@/measure/bench';
import { commandSchema } from '@/core/commands/commands';
import { digest } from './digest';
import { encodeStudioState, restoreStudioState, studioStateSchema } from './snapshot';
import { Studio } from './studio';

const back = (studio: Studio): Studio => {
  const again = new Studio(studio.painting.spec);
  restoreStudioState(again, studioStateSchema.parse(JSON.parse(JSON.stringify(encodeStudioState(studio)))));
  return again;
};

/** Ends of everything that can be set on a tool. */
const ENDS = [
  { sizeMm: 0.3 },
  { strength: 0 },
  { strength: 1 },
  { blend: 0 },
  { blend: 1 },
  { body: 0 },
  { body: 1 },
  { thin: 0 },
  { thin: 1 },
  { solvent: 0 },
  { solvent: 1 },
  { gel: 0 },
  { gel: 1 },
  { retarder: 0 },
  { retarder: 1 },
  { vehicle: 'acrylic' },
  { hair: 'soft' },
  { touch: 'dab' },
  { touch: 'drag' },
  { tip: 'soft' },
  { hold: 'edge' },
  { hold: 'flat' },
  { grade: -8 },
  { grade: 0 },
  { grade: 8 },
  { into: 'sketch' },
  { into: 'layer' },
  { distanceMm: 30 },
  { water: 0 },
  { water: 1 },
  { grey: 0 },
  { grey: 1 },
  { floor: 0 },
  { curve: 2 },
];

describe('a state that is put back', () => {
  it('holds every tool as it was held, whatever was set', () => {
    const studio = studioFor(10, 8);
    let tried = 0;
    for (const end of ENDS) {
      for (const tool of TOOL_IDS) {
        const command = commandSchema.safeParse({ do: 'tool', tool, ...end });
        try {
          if (command.success) studio.apply(command.data);
          tried++;
        } catch {
          // not every tool can be held so
        }
      }
      const again = back(studio);
      const held = (s: Studio) => TOOL_IDS.map((tool) => ({ ...s.tools.capture().settings.get(tool) }));
      expect(held(again), JSON.stringify(end)).toEqual(held(studio));
      expect(digest(again), JSON.stringify(end)).toBe(digest(studio));
    }
    expect(tried).toBeGreaterThan(20 * TOOL_IDS.length);
  });
});
