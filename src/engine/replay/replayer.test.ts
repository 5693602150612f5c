import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { decodeSrgb, linearToLab, type Triple } from '@/core/colour/colorimetry';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { commandSchema, type Command } from '@/core/commands/commands';
import { PlayTimes } from '@/core/journal/playing/playTimes';
import { Studio } from '@/core/journal/studio';
import { wholeRect } from '@/core/film/tilesIn';
import { fitted } from '@/core/picture/movingPicture';
import { Picture, STUDIO_LIGHT } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { drawView } from '@/core/picture/view';
import { field, line, loaded, studioFor } from '@/measure/bench';
import { randomFrom } from '@/measure/randomActs';
import type { FromReplay, ToReplay } from './replayMessages';
import { Replayer } from './replayer';

const { spec } = studioFor(60, 40, { ppi: 101.6 });
const HISTORY: Command[] = [
  ...loaded('flat', 9, { PB29: 1, PW6: 2 }),
  ...Array.from({ length: 12 }, (_, i) => line(4, 3 + ((i * 7) % 34), 56, 3 + ((i * 11) % 34))),
  { do: 'leave', hours: 400 } as const,
  ...loaded('round', 4, { PY43: 1 }),
  ...Array.from({ length: 12 }, (_, i) => line(4 + i * 4, 3, 9 + i * 4, 36)),
].map((command) => commandSchema.parse(command));
/** Sky, water and a band of light between them, each stroke with a fresh brush. */
const LOADED: Command[] = [
  ...field([0, 0, 60, 22], { PB29: 1, PW6: 4 }, 9),
  ...field([0, 20, 60, 20], { PY43: 1, PBr7BU: 1, PW6: 1 }, 9),
  ...field([8, 17, 44, 8], { PW6: 3, PY35: 1 }, 5),
].map((command) => commandSchema.parse(command));
const TIMES = new PlayTimes(HISTORY, { by: 'stroke', seconds: 20 });

/** The picture of the first commands of the history, as a view of so many pixels shows it. */
function seenAfter(done: number, width: number, height: number, history = HISTORY) {
  const studio = new Studio(spec);
  for (const command of history.slice(0, done)) studio.apply(command);
  const { painting } = studio;
  const picture = new Picture(painting);
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update(wholeRect(painting)));
  const all = { left: 0, top: 0, right: width, bottom: height };
  const rgba = drawView(pyramid, painting.arena.u32, fitted(width, height, painting), all);
  return { rgba };
}

/** How far two pictures are apart at the most, codes. What is drawn in parts is rounded elsewhere. */
const apart = (a: Uint8ClampedArray, b: Uint8ClampedArray): number =>
  a.length === b.length ? a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i])), 0) : Infinity;

/** A page that puts frames together and answers them. */
class Page {
  readonly told: FromReplay[] = [];
  canvas = new Uint8ClampedArray(0);
  private size = '';
  readonly replayer = new Replayer(
    (message) => this.receive(message),
    undefined,
    (work, ms) => setTimeout(work, ms),
  );

  say(message: ToReplay): void {
    this.replayer.receive(message);
  }

  private receive(message: FromReplay): void {
    this.told.push(message);
    if (message.say !== 'pixels') return;
    const { x, y, width, height, of, data } = message;
    if (this.size !== of.join()) {
      this.size = of.join();
      this.canvas = new Uint8ClampedArray(of[0] * of[1] * 4);
    }
    for (let row = 0; row < height; row++) {
      this.canvas.set(data.subarray(4 * width * row, 4 * width * (row + 1)), 4 * ((y + row) * of[0] + x));
    }
    setTimeout(() => this.say({ say: 'shown' }));
  }

  /** Waits until something is told that was not told before this was asked. */
  async until<K extends FromReplay['say']>(say: K, is: (m: Extract<FromReplay, { say: K }>) => boolean = () => true) {
    const from = this.told.length;
    for (let i = 0; i < 4000; i++) {
      const found = this.told.slice(from).find((m) => m.say === say && is(m as never));
      if (found) return found as Extract<FromReplay, { say: K }>;
      await new Promise((done) => setTimeout(done, 5));
    }
    throw new Error(`"${say}" was not told.`);
  }

  async arrive(time: number) {
    this.say({ say: 'go', time });
    return this.until('at', ({ arriving, time: at }) => !arriving && Math.abs(at - time) < 1e-6);
  }
}

async function opened(history = HISTORY): Promise<Page> {
  const page = new Page();
  page.say({ say: 'open', begun: spec, history, light: STUDIO_LIGHT });
  page.say({ say: 'pace', pacing: { by: 'stroke', seconds: 20 } });
  page.say({ say: 'look', width: 151, height: 90 });
  await page.until('at');
  return page;
}

describe('a journal that is played', () => {
  it('shows every moment as it was, from wherever it is wound', async () => {
    const page = await opened();
    const random = randomFrom(4);
    for (const done of [HISTORY.length, 9, ...Array.from({ length: 5 }, () => 3 + random.below(HISTORY.length - 3))]) {
      // on the way elsewhere first
      page.say({ say: 'go', time: random.next() * 20 });
      const at = await page.arrive(TIMES.timeOf({ done, readings: 0 }));
      const { rgba } = seenAfter(at.place.done, 151, 90);
      expect(at.place.readings).toBe(0);
      expect(apart(page.canvas, rgba), `after ${done}`).toBeLessThanOrEqual(1);
    }
  });

  it('plays to the end and stops there; whoever plays it again begins anew', async () => {
    const page = await opened();
    page.say({ say: 'pace', pacing: { by: 'stroke', seconds: 0.5 } });
    page.say({ say: 'play' });
    const end = await page.until('at', ({ playing, arriving }) => !playing && !arriving);
    expect(end.place.done).toBe(HISTORY.length);
    const places = page.told.flatMap((m) => (m.say === 'at' ? [m.place.done + m.place.readings / 1e3] : []));
    expect([...places].sort((a, b) => a - b)).toEqual(places);
    expect(page.told.some((m) => m.say === 'at' && m.tip !== undefined)).toBe(true);
    page.say({ say: 'play' });
    const again = await page.until('at', ({ playing }) => playing);
    expect(again.place.done).toBeLessThan(HISTORY.length);
  });

  it('plays back by itself to the empty ground, and from there from the end again', async () => {
    const page = await opened();
    await page.until('explored', ({ share }) => share === 1);
    page.say({ say: 'pace', pacing: { by: 'stroke', seconds: 0.5 } });
    await page.arrive(0.5);
    const from = page.told.length;
    page.say({ say: 'play', back: true });
    const end = await page.until('at', ({ playing, arriving }) => !playing && !arriving);
    expect(end.place).toEqual({ done: 0, readings: 0 });
    expect(apart(page.canvas, seenAfter(0, 151, 90).rgba)).toBeLessThanOrEqual(1);
    const times = page.told.slice(from).flatMap((m) => (m.say === 'at' && !m.arriving ? [m.time] : []));
    expect(times.length).toBeGreaterThan(2);
    expect([...times].sort((a, b) => b - a)).toEqual(times);
    page.say({ say: 'play', back: true });
    const again = await page.until('at', ({ playing, arriving }) => playing && !arriving);
    expect(again.place.done).toBeGreaterThan(HISTORY.length / 2);
  });

  it('gets all of it at hand while nobody wishes for anything, and shows what it showed', async () => {
    const page = await opened();
    await page.arrive(3);
    const shown = page.canvas.slice();
    await page.until('explored', ({ share }) => share === 1);
    page.say({ say: 'look', width: 151, height: 90 });
    await page.until('pixels');
    expect(apart(page.canvas, shown)).toBeLessThanOrEqual(1);
  });

  it('makes pictures of stages, says how far it is, can be given up, and is where it was then', async () => {
    const page = await opened();
    const at = await page.arrive(7);
    const shown = page.canvas.slice();
    page.say({ say: 'steps', ends: [15, HISTORY.length], width: 80 });
    const { pictures } = await page.until('steps');
    expect(pictures.map(({ width, height }) => [width, height])).toEqual([
      [80, 53],
      [80, 53],
    ]);
    expect(pictures[0].png).not.toEqual(pictures[1].png);
    expect(page.told.filter((m) => m.say === 'making').length).toBe(2);
    page.say({ say: 'steps', ends: [15, HISTORY.length], width: 80 });
    page.say({ say: 'cancel' });
    await page.until('given-up');
    const after = await page.arrive(7);
    expect(after.place).toEqual(at.place);
    expect(apart(page.canvas, shown)).toBeLessThanOrEqual(1);
  });

  it('paints it again in more cells: the same picture in the same millimetres, only finer', async () => {
    // a brush that is loaded for every stroke: where one runs dry, it breaks elsewhere on finer cells
    const page = await opened(LOADED);
    page.say({ say: 'again', scale: 2 });
    const { width, height, ppi, png, compared } = await page.until('again');
    const { painting } = new Studio(spec);
    expect([width, height]).toEqual([painting.width * 2, painting.height * 2]);
    expect(ppi).toBeCloseTo(spec.ppi * 2, 6);
    const { data } = decode(png);
    const [now, side] = [seenAfter(LOADED.length, painting.width, painting.height, LOADED).rgba, 8];
    const lab = (of: ArrayLike<number>, channels: number, row: number, x: number, y: number, half: number): Triple => {
      const sum: Triple = [0, 0, 0];
      for (let dy = -half; dy < half; dy++) {
        for (let dx = -half; dx < half; dx++) {
          for (let c = 0; c < 3; c++) sum[c] += decodeSrgb(of[channels * ((y + dy) * row + x + dx) + c] / 255);
        }
      }
      return linearToLab(sum.map((v) => v / (4 * half * half)) as Triple);
    };
    const offs: number[] = [];
    for (let i = 0; i < 20; i++) {
      const [x, y] = [20 + ((i * 37) % (painting.width - 40)), 20 + ((i * 53) % (painting.height - 40))];
      const off = deltaE2000(lab(now, 4, painting.width, x, y, side), lab(data, 3, width, 2 * x, 2 * y, 2 * side));
      offs.push(off);
    }
    offs.sort((a, b) => a - b);
    expect(offs[19]).toBeLessThan(2);
    expect(compared.fine.length).toBe(compared.coarse.length);
    expect(apart(compared.fine, compared.coarse)).toBeGreaterThan(8);
    page.say({ say: 'again', scale: 30 });
    expect((await page.until('not-made')).why).toMatch(/too large|cannot be painted/);
  });

  it('says that a film cannot be made where there are no means, and what cannot be played', async () => {
    const page = await opened();
    const wanted = {
      size: '1280x720',
      seconds: 5,
      by: 'stroke',
      captions: true,
      footprint: true,
      titled: true,
    } as const;
    page.say({ say: 'film', wanted: { ...wanted, title: 'Low tide', words: {} } });
    await page.until('given-up');
    const broken = new Page();
    const wrong = commandSchema.parse({ do: 'layer.choose', layer: 'L9' });
    broken.say({ say: 'open', begun: spec, history: [wrong], light: STUDIO_LIGHT });
    broken.say({ say: 'look', width: 10, height: 10 });
    broken.say({ say: 'go', time: 1 });
    expect((await broken.until('failed')).why).toMatch(/^Step 1 cannot be painted again/);
  });
});
