import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Command } from '@/core/commands/commands';
import { assembleJournal, JournalWriter, OLD_BLOCK, type JournalRecord, type Said } from './journalStore';

const wait = (seconds: number): Command => ({ do: 'wait', seconds });
const stroke = (i: number, readings: number): Command => ({
  do: 'stroke',
  samples: Array.from({ length: readings }, (_, k) => [k * 8, i, k, 0.5, 0, 0, 0]),
});

/** A storage whose every put waits until it is decided: stored, refused, or stored and yet reported as refused. */
class SlowStorage {
  readonly records = new Map<number, JournalRecord>();
  private open: { record: JournalRecord; resolve: () => void; reject: (e: Error) => void } | undefined;

  readonly put = (record: JournalRecord): Promise<void> => {
    if (this.open) throw new Error('Two writes at once.');
    // what is put is copied at once, as the browser does
    const copy = structuredClone(record);
    return new Promise((resolve, reject) => (this.open = { record: copy, resolve, reject }));
  };

  decide(how: 'stored' | 'refused' | 'stored, said refused'): void {
    const { open } = this;
    if (!open) return;
    this.open = undefined;
    if (how !== 'refused') this.records.set(open.record.first, open.record);
    if (how === 'stored') open.resolve();
    else open.reject(new DOMException('The quota has been exceeded.', 'QuotaExceededError'));
  }

  /** The browser dies: what is under way may still come to be stored. */
  kill(stored: boolean): JournalRecord[] {
    if (stored) this.decide('stored');
    return [...this.records.values()];
  }
}

const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

const step = fc.oneof(
  { weight: 6, arbitrary: fc.constant('append' as const) },
  { weight: 1, arbitrary: fc.constant('long stroke' as const) },
  { weight: 1, arbitrary: fc.constant('note' as const) },
  { weight: 3, arbitrary: fc.constant('stored' as const) },
  { weight: 1, arbitrary: fc.constantFrom('refused' as const, 'stored, said refused' as const) },
  { weight: 2, arbitrary: fc.constant('time' as const) },
);

describe('a journal in any storage', () => {
  it('reads back a prefix with everything acknowledged, whatever comes between, and goes on from there', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.array(step, { minLength: 4, maxLength: 90 }), fc.boolean()), {
          minLength: 1,
          maxLength: 3,
        }),
        async (sessions) => {
          let stored: JournalRecord[] = [];
          let written: { entry: Command; said: Said }[] = [];
          for (const [s, [steps, dying]] of sessions.entries()) {
            const storage = new SlowStorage();
            for (const record of stored) storage.records.set(record.first, record);
            let acknowledged = written.length;
            let alive = true;
            const writer = new JournalWriter(
              storage.put,
              { kept: (count) => alive && (acknowledged = Math.max(acknowledged, count)), refused: () => {} },
              assembleJournal(stored),
              0,
            );
            expect(writer.length).toBe(written.length);
            let no = 0;
            for (const what of steps) {
              if (what === 'append' || what === 'long stroke') {
                const entry = what === 'append' ? wait(written.length) : stroke(written.length, 2000);
                written.push({ entry, said: { session: s + 1, no: ++no } });
                writer.append(entry, { session: s + 1, no });
              } else if (what === 'note') writer.note({ session: s + 1, no: ++no });
              else if (what === 'time') await settle();
              else storage.decide(what);
            }
            await settle();
            alive = false;
            stored = storage.kill(dying);
            const back = assembleJournal(stored);
            expect(back.missing).toBe(0);
            expect(back.entries).toEqual(written.slice(0, back.entries.length).map((w) => w.entry));
            expect(back.entries.length).toBeGreaterThanOrEqual(acknowledged);
            // what is said to be done is what is there: nothing is done twice or left out
            const { said } = back;
            const last = written[back.entries.length - 1];
            const next = written[back.entries.length];
            if (last && said.session === last.said.session) expect(said.no).toBeGreaterThanOrEqual(last.said.no);
            if (next && said.session === next.said.session) expect(said.no).toBeLessThan(next.said.no);
            written = written.slice(0, back.entries.length);
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('stores by itself what was refused, as soon as there is room', async () => {
    const records = new Map<number, JournalRecord>();
    let full = true;
    let refusals = 0;
    let kept = 0;
    const put = async (record: JournalRecord) => {
      if (full) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      records.set(record.first, record);
    };
    const writer = new JournalWriter(put, { kept: (count) => (kept = count), refused: () => refusals++ }, undefined, 1);
    for (let i = 0; i < 60; i++) writer.append(wait(i));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(refusals).toBeGreaterThan(1);
    expect(kept).toBe(0);
    full = false;
    writer.retry();
    await writer.stored();
    expect(kept).toBe(60);
    expect(assembleJournal([...records.values()]).entries).toHaveLength(60);
    expect(records.size).toBe(3);
  });
});

describe('a journal that is not whole', () => {
  const record = (first: number, count: number): JournalRecord => ({
    first,
    entries: Array.from({ length: count }, (_, i) => wait(first + i)),
    sum: 'x',
  });

  it('of a version before keeps every block behind a short one, and says how many entries are missing', () => {
    const block = (b: number, count: number): [number, Command[]] => [b, record(b * OLD_BLOCK, count).entries.slice()];
    const back = assembleJournal([], new Map([block(0, 20), block(1, 18), block(3, 20), block(2, 20), block(4, 7)]));
    expect(back.entries).toHaveLength(87);
    expect(back.missing).toBe(2);
    expect(back.entries[37]).toEqual(wait(37));
    expect(back.entries[38]).toBeUndefined();
    expect(back.entries[40]).toEqual(wait(40));
    expect(back.sums).toHaveLength(39);
    // and grows behind the last block
    const records: JournalRecord[] = [];
    const writer = new JournalWriter(async (r) => records.push(r), { kept() {}, refused() {} }, back);
    writer.append(wait(87));
    expect(records[0].first).toBe(87);
  });

  it('is told, where a record is missing or is not what was written', () => {
    const writtenAs: JournalRecord[] = [];
    const writer = new JournalWriter(async (r) => writtenAs.push(r), { kept() {}, refused() {} });
    for (let i = 0; i < 70; i++) writer.append(wait(i));
    return writer.stored().then(() => {
      const last = [...new Map(writtenAs.map((r) => [r.first, r])).values()];
      expect(last.map((r) => r.first)).toEqual([0, 24, 48]);
      expect(assembleJournal(last).missing).toBe(0);
      const lost = assembleJournal([last[0], last[2]]);
      expect([lost.missing, lost.entries.length]).toEqual([24, 70]);
      const changed = { ...last[1], entries: last[1].entries.map((e, i) => (i === 3 ? wait(1e6) : e)) };
      const damaged = assembleJournal([last[0], changed, last[2]]);
      expect(damaged.missing).toBe(24);
      expect(damaged.entries[23]).toEqual(wait(23));
      expect(damaged.entries[24]).toBeUndefined();
      expect(damaged.entries[48]).toEqual(wait(48));
    });
  });
});
