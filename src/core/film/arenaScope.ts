import type { Arena } from './arena';

/** What one owner has taken of the arena, to be given back in one go. */
export class ArenaScope {
  private readonly taken = new Map<number, number>();

  constructor(readonly arena: Arena) {}

  /** Address of `bytes` zeroed bytes, which are given back with everything else. */
  allocate(bytes: number): number {
    const at = this.arena.allocate(bytes);
    this.taken.set(at, bytes);
    return at;
  }

  /** Gives everything back. */
  dispose(): void {
    for (const [at, bytes] of this.taken) this.arena.free(at, bytes);
    this.taken.clear();
  }
}
