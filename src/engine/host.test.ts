import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { commandSchema } from '@/core/commands/commands';
import { Studio } from '@/core/journal/studio';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { first } from '@/measure/thorough';
import { readHand, readJournal, readSnapshots, removeTile, writePainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';
import { onTheRack, Page, pause, replayed } from './testPage';

describe('a painting at the host', () => {
  it.each(first(2, [1, 2, 3, 4]))(
    'is what its stored journal says, and comes back as it was (seed %i)',
    async (seed) => {
      const record = await onTheRack(seed % 2 ? 'linen-fine' : 'paper-cold');
      const random = randomFrom(seed);
      const page = await Page.open(record.id);
      for (let i = 0; i < 70; i++) {
        page.act(commandSchema.parse(randomAct(random, 26, 20)));
        // now and then the hand rests
        if (random.next() < 0.15) await pause(random.below(30));
      }
      page.say({ say: 'clock', pace: 0 });
      const state = await page.settled();
      expect(page.heard.filter(({ say }) => say === 'failed')).toEqual([]);
      expect(page.heard.filter((m) => m.say === 'refused' && m.fault)).toEqual([]);
      expect(await replayed(record)).toBe(state);
      expect((await readJournal(record.id)).missing).toBe(0);
      const again = await Page.open(record.id, true);
      expect(await again.settled()).toBe(state);
    },
  );

  it.each(first(2, [11, 12, 13, 14]))('makes good what the worker had not worked off (seed %i)', async (seed) => {
    const record = await onTheRack();
    const random = randomFrom(seed);
    const page = await Page.open(record.id);
    const acts = Array.from({ length: 40 }, () => commandSchema.parse(randomAct(random, 26, 20)));
    const until = 5 + random.below(30);
    for (const act of acts.slice(0, until)) page.act(act);
    // this host goes on living, and must not write of water that flows when its browser is dead
    page.say({ say: 'clock', pace: 0 });
    await page.settled();
    // from here on the worker hears nothing more, and then the browser dies in the middle of a stroke
    page.connected = false;
    for (const act of acts.slice(until)) page.act(act);
    page.hand({ say: 'stroke-begin' });
    page.hand({
      say: 'stroke-samples',
      samples: [
        [0, 3, 3, 0.5],
        [9, 6, 6, 0.5],
      ],
      newest: 0,
    });
    await pause(200);

    const whole = await onTheRack();
    const other = await Page.open(whole.id);
    for (const act of acts) other.act(act);
    await other.settled();

    const again = await Page.open(record.id);
    // nor does water flow on between what is told of the state and what is read of the journal
    again.say({ say: 'clock', pace: 0 });
    const there = await again.settled();
    // the same has been done; how much time passed on wet paper is another matter
    const done = async (of: PaintingRecord) =>
      (await readJournal(of.id)).entries
        .filter((entry) => entry?.do !== 'wait')
        .map((entry) => (entry?.do === 'stroke' ? { do: 'stroke', from: entry.samples[0].slice(1) } : entry));
    expect(await done(record)).toEqual(await done(whole));
    expect(await replayed(record)).toBe(there);
    const strokes = acts.slice(until).filter((act) => act.do === 'stroke').length;
    if (strokes > 0) expect(again.heard.some((m) => m.say === 'told' && /not worked off/.test(m.what))).toBe(true);
    // and once something else is in the journal, the log has nothing of it any more
    again.act({ do: 'wait', seconds: 0 });
    await again.settled();
    await pause(100);
    expect((await readHand(record.id)).filter(({ record: r }) => r.session === 1)).toEqual([]);
    const third = await Page.open(record.id);
    third.say({ say: 'clock', pace: 0 });
    expect(await third.settled()).toBe(await replayed(record));
  });

  it('that is only looked at writes nothing', async () => {
    const record = await onTheRack('paper-cold');
    const page = await Page.open(record.id);
    for (const act of [
      { do: 'tool', tool: 'wash-round', sizeMm: 6 },
      { do: 'load', mixture: { PB29: 1 } },
      {
        do: 'stroke',
        samples: [
          [0, 4, 4, 0.7],
          [300, 20, 12, 0.7],
        ],
      },
    ])
      page.act(commandSchema.parse(act));
    // the one who paints holds the water: it would be written down as it flows
    page.say({ say: 'clock', pace: 0 });
    await page.settled();
    const before = await readJournal(record.id);
    const looking = await Page.open(record.id, true);
    await looking.settled();
    await pause(150);
    await looking.ask({ of: 'state' });
    expect(await readJournal(record.id)).toEqual(before);
  });

  it('says how far a file is, and leaves it where nobody waits for it any more', async () => {
    const record = await onTheRack();
    const page = await Page.open(record.id);
    page.act(commandSchema.parse({ do: 'load', mixture: { PB29: 1 } }));
    await page.settled();
    const { bytes } = await page.ask({ of: 'export', as: 'tiff', title: '' });
    expect(bytes.length).toBeGreaterThan(1000);
    const shares = page.heard.flatMap((m) => (m.say === 'answering' ? [m.share] : []));
    expect(shares[0]).toBe(0);
    const givenUp = new Int32Array(new SharedArrayBuffer(4));
    Atomics.store(givenUp, 0, 1);
    page.say({ say: 'ask', id: 999, question: { of: 'export', as: 'tiff', title: '', givenUp } });
    await page.until('no-answer');
    expect(page.heard.findLast((m) => m.say === 'no-answer')).toEqual({
      say: 'no-answer',
      id: 999,
      why: 'It was given up.',
    });
    // and goes on with whatever else is asked
    expect((await page.ask({ of: 'state' })).digest).toBe(await replayed(record));
  });

  it('goes far back with progress, can be stopped on the way, and does it again', async () => {
    const record = await onTheRack();
    const random = randomFrom(5);
    const page = await Page.open(record.id);
    const acts = [
      { do: 'tool', tool: 'flat', sizeMm: 6 },
      { do: 'load', mixture: { PB29: 1 }, amount: 3 },
    ] as object[];
    for (let i = 0; i < 24; i++)
      acts.push({
        do: 'stroke',
        samples: [
          [0, random.next() * 20, 4, 0.6],
          [90, 20, random.next() * 20, 0.6],
        ],
      });
    const states: string[] = [];
    for (const act of acts) {
      page.act(commandSchema.parse(act));
      states.push(await page.settled());
    }
    // once it is quiet a snapshot is made, and opening paints nothing again
    const newest = async () => (await readSnapshots(record.id))[0]?.manifest;
    while ((await newest())?.entries !== acts.length || !(await newest())?.past) await pause(50);
    const goesFar = (opened: Page) => opened.heard.some((m) => m.say === 'progress' && m.of === 'undo' && m.total > 0);
    // its last steps are at hand
    const soon = await Page.open(record.id);
    for (let i = 0; i < 8; i++) soon.act({ do: 'undo' });
    expect(await soon.settled()).toBe(states.at(-9));
    for (let i = 0; i < 8; i++) soon.act({ do: 'redo' });
    expect(await soon.settled()).toBe(states.at(-1));
    expect(goesFar(soon)).toBe(false);
    // those that were not kept are painted again
    soon.say({ say: 'clock', pace: 0 });
    for (const { key } of (await newest())!.past!) await removeTile(key);
    const again = await Page.open(record.id);
    const end = await again.settled();
    expect(end).toBe(states.pop());
    again.act({ do: 'undo' });
    again.say({ say: 'cancel' });
    expect(await again.settled()).toBe(end);
    for (let i = 0; i < 8; i++) {
      again.act({ do: 'undo' });
      expect(await again.settled()).toBe(states.pop());
    }
    expect(goesFar(again)).toBe(true);
    for (let i = 0; i < 8; i++) again.act({ do: 'redo' });
    expect(await again.settled()).toBe(end);
    expect(await replayed(record)).toBe(end);
    again.act({ do: 'redo' });
    await again.until('refused');
  });

  it('does again what was taken back before the page was closed', async () => {
    const record = await onTheRack();
    const page = await Page.open(record.id);
    const stroke = (y: number) =>
      page.act(
        commandSchema.parse({
          do: 'stroke',
          samples: [
            [0, 4, y, 0.6],
            [90, 20, y + 3, 0.6],
          ],
        }),
      );
    page.act(commandSchema.parse({ do: 'load', mixture: { PB29: 1 }, amount: 3 }));
    for (const y of [3, 8, 13]) stroke(y);
    const whole = await page.settled();
    page.act({ do: 'undo' });
    const two = await page.settled();
    page.act({ do: 'undo' });
    await page.settled();
    // by the journal alone, and from a snapshot that was taken before the undo or after it
    for (const kept of [0, 1]) {
      if (kept) while ((await readSnapshots(record.id)).length === 0) await pause(50);
      const looked = await Page.open(record.id, true);
      await looked.settled();
      const bench = looked.heard.findLast((m) => m.say === 'bench');
      expect(bench?.bench.canRedo).toBe(true);
    }
    const again = await Page.open(record.id);
    await again.settled();
    again.act({ do: 'redo' });
    expect(await again.settled()).toBe(two);
    again.act({ do: 'redo' });
    expect(await again.settled()).toBe(whole);
    expect(await replayed(record)).toBe(whole);
    again.act({ do: 'redo' });
    await again.until('refused');
  });

  it('which cannot be opened is told in a sentence', async () => {
    const nowhere = await Page.open('nowhere');
    await nowhere.until('failed');
    expect(nowhere.heard).toContainEqual({ say: 'failed', why: 'This painting is not on the rack of this browser.' });
    const record = await onTheRack();
    await writePainting({ ...record, spec: { ...record.spec, widthMm: 20_000, heightMm: 20_000 } });
    const huge = await Page.open(record.id);
    await huge.until('failed');
    expect(huge.heard.find((m) => m.say === 'failed')?.why).toContain('could not be opened');
  });

  it('leaves a fault out and goes on', async () => {
    const record = await onTheRack();
    const page = await Page.open(record.id);
    page.act(commandSchema.parse({ do: 'load', mixture: { PB29: 1 } }));
    const before = await page.settled();
    const { addSample } = Studio.prototype;
    Studio.prototype.addSample = () => {
      throw new TypeError('a fault');
    };
    page.act(
      commandSchema.parse({
        do: 'stroke',
        samples: [
          [0, 4, 4, 0.6],
          [90, 20, 9, 0.6],
        ],
      }),
    );
    await page.until('refused');
    Studio.prototype.addSample = addSample;
    expect(await page.settled()).toBe(before);
    page.act(
      commandSchema.parse({
        do: 'stroke',
        samples: [
          [0, 4, 4, 0.6],
          [90, 20, 9, 0.6],
        ],
      }),
    );
    expect(await page.settled()).toBe(await replayed(record));
  });
});
