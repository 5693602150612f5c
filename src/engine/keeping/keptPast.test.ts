import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { commandSchema, type Command } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { PainterError } from '@/core/errors';
import { effectiveCommands } from '@/core/journal/history';
import { type Studio } from '@/core/journal/studio';
import { line, studioFor } from '@/measure/bench';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { first } from '@/measure/thorough';
import { Keeping } from './keeping';
import { keysIn, readSnapshots, removeTile, tileKeys, writePainting } from './shelf';
import type { PaintingRecord } from './paintingRecord';

const QUIET = { kept() {}, refused() {} };
let made = 0;

/** A painting at work, and opened again and again. */
class Easel {
  /** The bytes of each state by what leads to it. */
  private readonly states = new Map<string, string>();

  private constructor(
    readonly record: PaintingRecord,
    public studio: Studio,
    private keeping: Keeping,
    private past: AsyncGenerator<undefined, void, undefined> | undefined,
  ) {}

  static async begin(kind: 'linen-fine' | 'paper-cold' | 'paper-laid'): Promise<Easel> {
    const id = `past${made++}`;
    const { spec } = studioFor(26, 20, { ppi: 90, surface: { kind } });
    const record: PaintingRecord = { id, title: id, createdAt: made, spec, photos: [] };
    await writePainting(record);
    const { studio, keeping } = await Keeping.open(record, QUIET);
    return new Easel(record, studio, keeping, undefined);
  }

  /** The same commands lead to one state, whatever was undone, redone and kept on the way. */
  private check(): void {
    const line = JSON.stringify(this.studio.history);
    const now = digest(this.studio);
    expect(now).toBe(this.states.get(line) ?? now);
    this.states.set(line, now);
  }

  /** @returns whether it could be done */
  act(command: Command): boolean {
    try {
      this.studio.apply(command);
    } catch (error) {
      if (error instanceof PainterError) return false;
      throw error;
    }
    this.keeping.append(command);
    this.check();
    return true;
  }

  /** @param pieces how many pieces are written; all of them unless told */
  async snapshot(pieces = Infinity): Promise<void> {
    await this.keeping.stored();
    this.keeping.beginSnapshot(this.studio);
    for (let i = 0; i < pieces && !(await this.keeping.continueSnapshot()); i++);
  }

  /** Shuts the browser and opens the painting again, up to its last stroke. */
  async reopen(): Promise<void> {
    await this.keeping.stored();
    const { studio, keeping, rest, undone, past } = await Keeping.open(this.record, QUIET);
    Object.assign(this, { studio, keeping, past });
    for (const command of rest) studio.apply(command);
    studio.timeline.adoptUndone(undone);
  }

  /** @param most how many steps are put back */
  async putBack(most = Infinity): Promise<void> {
    for (let i = 0; i < most && this.past && !(await this.past.next()).done; i++);
  }

  /** Takes back what is at hand. @returns how many steps that were; each state is the one that it was */
  takeBackAtHand(): number {
    for (let steps = 0; ; steps++) {
      this.check();
      if (!this.studio.timeline.canUndo || this.studio.timeline.farWay('undo')) return steps;
      this.act({ do: 'undo' });
    }
  }
}

const stroke = (y: number): Command => commandSchema.parse(line(3, y, 22, y + 2));
const blue = (tool: string) =>
  [
    { do: 'tool', tool, sizeMm: 5 },
    { do: 'load', mixture: { PB29: 1 }, amount: 2 },
  ].map((c) => commandSchema.parse(c));

describe('what is kept of the last steps', () => {
  it('lets them be taken back at once after reopening', async () => {
    const easel = await Easel.begin('linen-fine');
    for (const command of blue('flat')) easel.act(command);
    for (let i = 0; i < 26; i++) {
      easel.act(stroke(3 + (i % 14)));
      if (i % 5 === 0) await easel.snapshot();
    }
    await easel.snapshot();
    await easel.reopen();
    expect(easel.studio.timeline.farWay('undo')).toBeDefined();
    await easel.putBack();
    expect(easel.takeBackAtHand()).toBe(26);
    const { length } = effectiveCommands(easel.studio.history);
    for (let i = 0; i < 26; i++) easel.act({ do: 'redo' });
    expect(easel.studio.history.length).toBe(length + 26);
  });

  it.each(first(3, [1, 2, 3, 4, 5, 6, 7, 8, 9]))(
    'leads back to the same bytes whatever was done, and when (seed %i)',
    async (seed) => {
      const random = randomFrom(seed);
      const easel = await Easel.begin((['linen-fine', 'paper-cold', 'paper-laid'] as const)[seed % 3]);
      let atHand = 0;
      const act = () => easel.act(commandSchema.parse(randomAct(random, 26, 20)));
      for (let round = 0; round < 3; round++) {
        for (let i = 5 + random.below(25); i > 0; i--) act();
        await easel.snapshot();
        for (let i = random.below(6); i > 0; i--) act();
        // the browser may die while a snapshot is written
        if (random.next() < 0.5) await easel.snapshot(random.below(12));
        await easel.reopen();
        const before = random.below(3);
        for (let i = 0; i < before; i++) act();
        const putBack = easel.putBack(random.below(4));
        for (let i = random.below(3); i > 0; i--) act();
        await putBack;
        // a step or two are taken back before the others are there
        for (let i = random.below(3); i > 0; i--) easel.act({ do: 'undo' });
        await easel.putBack();
        for (let i = random.below(3); i > 0; i--) act();
        atHand += easel.takeBackAtHand();
      }
      expect(atHand).toBeGreaterThan(10);
    },
  );

  it('goes with time that passes before it is read', async () => {
    const easel = await Easel.begin('paper-cold');
    for (const command of blue('wash-round')) easel.act(command);
    for (const y of [5, 13]) easel.act(stroke(y));
    // a step that has to do with none of the tiles in which water flows
    easel.act(commandSchema.parse({ do: 'layer.add', kind: 'paint' }));
    await easel.snapshot();
    await easel.reopen();
    easel.studio.time.advance(40);
    await easel.putBack();
    easel.studio.time.advance(10);
    const { command } = easel.studio.endWait()!;
    expect(command.do).toBe('wait');
    expect(easel.takeBackAtHand()).toBe(3);
  });

  it('is done without where a piece of it is missing, and no gap is left', async () => {
    const easel = await Easel.begin('linen-fine');
    for (const command of blue('flat')) easel.act(command);
    for (let i = 0; i < 9; i++) easel.act(stroke(3 + i));
    await easel.snapshot();
    const { past } = (await readSnapshots(easel.record.id))[0].manifest;
    await removeTile(past![4].key);
    await easel.reopen();
    await easel.putBack();
    expect(easel.takeBackAtHand()).toBe(4);
    expect(easel.studio.timeline.farWay('undo')).toBeDefined();
  });

  it('takes no more room than the last steps', async () => {
    const easel = await Easel.begin('linen-fine');
    for (const command of blue('flat')) easel.act(command);
    for (let i = 0; i < 60; i++) {
      easel.act(stroke(3 + (i % 14)));
      if (i % 7 === 0) await easel.snapshot();
      if (i % 20 === 0) await easel.reopen();
    }
    await easel.snapshot();
    const all = await readSnapshots(easel.record.id);
    expect(all.slice(1).every(({ manifest }) => !manifest.past)).toBe(true);
    const listed = new Set(all.flatMap(({ manifest }) => keysIn(manifest)));
    expect((await tileKeys(easel.record.id)).filter((key) => !listed.has(key))).toEqual([]);
    expect([...listed].filter((key) => key.includes('/past-')).length).toBeGreaterThan(20);
  });
});
