import { isColoured, pigmentId, TABLE_COUNT } from '@/core/colour/pigments';
import type { MassBalance } from '@/core/film/ledger';
import type { StudioState } from './state';

/** The balance of water, microlitres: loaded = canvas + tool + removed + evaporated. */
export function waterBalance({ painting, tools }: StudioState): {
  loaded: number;
  canvas: number;
  tool: number;
  removed: number;
  evaporated: number;
} {
  return { ...painting.ledger.water, canvas: painting.waterOnCanvas(), tool: tools.water() };
}

/** The balance of every pigment that was ever loaded. */
export function massBalance({ painting, slab, tools }: StudioState): Record<string, MassBalance> {
  const { film, settled, strata } = painting.massOnCanvas();
  const tool = tools.mass();
  const onSlab = slab.massOnCanvas().film;
  const { loaded, removed, added } = painting.ledger;
  const balance: Record<string, MassBalance> = {};
  for (let i = 0; i < TABLE_COUNT; i++) {
    if ((!loaded[i] && !added[i]) || !isColoured(i)) continue;
    balance[pigmentId(i)] = {
      loaded: loaded[i],
      film: film[i],
      settled: settled[i],
      strata: strata[i],
      tool: tool[i],
      slab: onSlab[i],
      removed: removed[i],
      ...(added[i] && { added: added[i] }),
    };
  }
  return balance;
}
