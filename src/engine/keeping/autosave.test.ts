import { describe, expect, it } from 'vitest';
import type { Studio } from '@/core/journal/studio';
import { Autosave } from './autosave';
import type { Keeping } from './keeping';

/** A painting on which so many steps have been made, whose snapshot has so many tiles. */
function painting(steps: number, tiles: number, looking = false) {
  let left = 0;
  const keeping = {
    sinceSnapshot: steps,
    snapshots: { inProgress: false },
    beginSnapshot: () => void (left = tiles),
    continueSnapshot: () => Promise.resolve(--left < 0),
  };
  // a hand that is ahead of the worker: there is always a stroke in the air
  const studio = { strokeInAir: true } as Studio;
  const host = { studio: () => studio, thumbnail: () => new Uint8Array(0), post: () => {} };
  return { autosave: new Autosave(keeping as unknown as Keeping, host, looking), left: () => left };
}

describe('snapshots of a painting that is painted on without a pause', () => {
  it('are overdue after enough steps, and not where it is only looked at', () => {
    expect(painting(100, 0).autosave.snapshotOverdue).toBe(false);
    expect(painting(130, 0).autosave.snapshotOverdue).toBe(true);
    expect(painting(130, 0, true).autosave.snapshotOverdue).toBe(false);
  });

  it('come to an end though there is always a stroke in the air', async () => {
    const { autosave, left } = painting(130, 2);
    await autosave.snapshot();
    expect(left()).toBe(-1);
  });
});
