import type { OwnPaint } from '@/core/colour/ownPaints';
import type { TubeSet } from '@/core/colour/tubeSets';
import { openStore } from '@/engine/keeping/store';

/** What a painter keeps of colour beside the paintings: own sets of tubes, own paints. */
const colour = openStore('colour');

export const readOwnSets = async (): Promise<readonly TubeSet[]> => (await colour.getItem<TubeSet[]>('sets')) ?? [];
export const writeOwnSets = (sets: readonly TubeSet[]): Promise<unknown> => colour.setItem('sets', sets);

export const readOwnPaints = async (): Promise<readonly OwnPaint[]> =>
  (await colour.getItem<OwnPaint[]>('paints')) ?? [];
export const writeOwnPaints = (paints: readonly OwnPaint[]): Promise<unknown> => colour.setItem('paints', paints);
