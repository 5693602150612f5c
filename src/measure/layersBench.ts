/** What tests of layers need: journals that are painted, books that must balance. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import fc from 'fast-check';
import { expect } from 'vitest';
import type { PaintingSpec } from '@/core/film/painting';
import { studioFor } from '@/measure/bench';
import { commandSchema, type Command, type CommandInput } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { Studio } from '@/core/journal/studio';

export const hash = (bytes: Uint8Array) => bytesToHex(sha256(bytes));

export const stroke = (...places: [number, number][]): CommandInput => ({
  do: 'stroke',
  samples: places.map(([x, y], i) => [i * 60, x, y, 0.7]),
});

/** Mass of each pigment must be where the ledger says. */
export function expectBalance(studio: Studio): void {
  for (const [pigment, b] of Object.entries(studio.massBalance())) {
    const come = b.loaded + (b.added ?? 0);
    const there = b.film + b.settled + b.strata + b.tool + b.slab + b.removed;
    const scale = Math.max(1, Math.abs(b.loaded) + Math.abs(b.added ?? 0));
    expect(Math.abs(come - there) / scale, pigment).toBeLessThan(1e-4);
  }
}

export function play(studio: Studio, journal: readonly CommandInput[]): Command[] {
  const done: Command[] = [];
  for (const input of journal) {
    const command = commandSchema.parse(input);
    try {
      studio.apply(command);
      done.push(command);
    } catch (error) {
      if (!(error instanceof PainterError)) throw error;
    }
  }
  return done;
}

export const id = fc.constantFrom('L1', 'L2', 'L3', 'L4', 'L5', 'L6');

export const small = (historyBytes?: number, spec: Partial<PaintingSpec> = {}) =>
  new Studio({ ...studioFor(30, 24, { ppi: 110 }).spec, ...spec }, historyBytes);
