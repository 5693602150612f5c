import { BANDS } from '@/core/colour/bands';
import type { ArenaScope } from '@/core/film/arenaScope';
import { PLANE_BYTES } from '@/core/film/cells';

/** Tiles that are kept at most: 126 MB. */
const MOST = 640;

/**
 * What lies under the layer that is painted on, tile by tile, in bands: laid once, and used for every stroke until
 * something below changes. The tiles used longest ago are given up first.
 */
export class SubstrateCache {
  private readonly kept = new Map<number, { at: number; key: string }>();

  constructor(private readonly memory: ArenaScope) {}

  /** Word address of a tile's bands, one plane after the other; undefined where they are not as the key says. */
  find(index: number, key: string): number | undefined {
    const found = this.kept.get(index);
    if (found?.key !== key) return undefined;
    this.kept.delete(index);
    this.kept.set(index, found);
    return found.at;
  }

  /** Whether a tile can be kept without another being given up. */
  hasRoom(index: number): boolean {
    return this.kept.has(index) || this.kept.size < MOST;
  }

  /** Room for a tile's bands, to be filled now. */
  make(index: number, key: string): number {
    let room = this.kept.get(index);
    if (room) this.kept.delete(index);
    else if (!this.hasRoom(index)) {
      const [oldest, its] = this.kept.entries().next().value!;
      this.kept.delete(oldest);
      room = its;
    }
    const at = room?.at ?? this.memory.allocate(PLANE_BYTES * BANDS.count) >> 2;
    this.kept.set(index, { at, key });
    return at;
  }
}
