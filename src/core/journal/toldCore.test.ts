import { describe, expect, it } from 'vitest';
import { commandSchema } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import { decodeTile, encodeTile } from '@/core/film/packing/tileCodec';
import { wholeRect } from '@/core/film/tilesIn';
import { field, line, loaded, paint, studioFor } from '@/measure/bench';
import { randomAct, randomFrom } from '@/measure/randomActs';
import { coreAt } from '@/core/picture/coreSample';
import { Picture } from '@/core/picture/picture';
import { digest } from './digest';
import { type Studio } from './studio';
import { filmHistories } from './toldCore';
import { toldStrokes } from './toldStrokes';

/** Umber over everything; dried; white over the right half, left for three days; two red strokes over the upper right. */
function painted() {
  const studio = studioFor(40, 30, { ppi: 70 });
  const counts: number[] = [];
  const more = (...commands: Parameters<typeof field>) => {
    paint(studio, ...field(...commands));
    counts.push(studio.state.strokes);
  };
  more([0, 0, 40, 30], { PBr7BU: 1 }, 9, 0.5);
  studio.apply({ do: 'dry' });
  more([20, 0, 20, 30], { PW6: 1 }, 9, 0.5);
  studio.apply({ do: 'leave', hours: 24 * 400 });
  paint(studio, ...loaded('flat', 8, { PR188: 1 }), line(20, 5, 40, 5), line(20, 6, 40, 6));
  studio.apply({ do: 'wait', seconds: 600 });
  return { studio, counts };
}

const coreOf = (studio: Studio, xMm: number, yMm: number) => {
  const picture = new Picture(studio.painting);
  picture.update(wholeRect(studio.painting));
  const { mmPerPx } = studio.painting;
  const core = coreAt(picture, Math.floor(xMm / mmPerPx), Math.floor(yMm / mmPerPx));
  picture.dispose();
  return core;
};

describe('how the films of a core came there', () => {
  it('each film is of its strokes, and it is known how long ago they were made', () => {
    const { studio, counts } = painted();
    const [first, second] = counts;
    const [umber, white, red] = filmHistories(coreOf(studio, 30, 5), studio);
    expect(umber.driedAfter).toBe(first);
    expect(white.driedAfter).toBe(second);
    expect(red.driedAfter).toBeUndefined();
    expect(umber.strokes!.last).toBeLessThanOrEqual(first);
    expect(white.strokes!.first).toBeGreaterThan(first);
    expect(white.strokes!.last).toBeLessThanOrEqual(second);
    expect(red.strokes).toEqual({ count: 2, first: second + 1, last: second + 2 });
    expect(red.tool).toBe('flat');
    expect(red.ago).toBe(600);
    expect(white.ago).toBe(24 * 400 * 3600 + 600);
    expect(umber.ago).toBe(white.ago);
    // lower down no red stroke came, and on the left no white one
    expect(filmHistories(coreOf(studio, 30, 25), studio)).toHaveLength(2);
    const left = filmHistories(coreOf(studio, 8, 25), studio);
    expect(left.map((film) => film.driedAfter)).toEqual([first]);
  });

  it('is the same after undo and redo, and when tiles were written down and read', () => {
    const { studio } = painted();
    const told = () => filmHistories(coreOf(studio, 30, 5), studio);
    const [before, bytes] = [told(), digest(studio)];
    for (const way of ['undo', 'undo', 'undo', 'redo', 'redo', 'redo'] as const) studio.apply({ do: way });
    expect(digest(studio)).toBe(bytes);
    expect(told()).toEqual(before);
    for (const layer of studio.painting.layers) {
      layer.forEachTile((_, index) => {
        const image = layer.capture(index, studio.painting.arena)!;
        expect(decodeTile(encodeTile(image))).toEqual(image);
        layer.restore(index, decodeTile(encodeTile(image)), studio.painting.arena, () => studio.painting.newBasin());
      });
    }
    expect(told()).toEqual(before);
    expect(digest(studio)).toBe(bytes);
  });

  it('what lay on top and dried at once with what is under it is of the same strokes', () => {
    const studio = studioFor(24, 16, { ppi: 70 });
    paint(studio, ...loaded('flat', 8, { PBr7BU: 1 }), line(2, 8, 22, 8));
    paint(studio, ...loaded('flat', 8, { PW6: 1 }, { blend: 0 }), line(2, 8, 22, 8), { do: 'dry' });
    const core = coreOf(studio, 12, 8);
    expect(core.films.length).toBeGreaterThan(1);
    for (const { strokes, driedAfter } of filmHistories(core, studio))
      expect([strokes, driedAfter]).toEqual([{ count: 2, first: 1, last: 2 }, 2]);
  });

  it('what was rubbed or faded keeps the time at which it dried', () => {
    const studio = studioFor(20, 16, { ppi: 70 });
    paint(studio, { do: 'tool', tool: 'graphite', into: 'layer', sizeMm: 4 }, line(2, 8, 18, 8), line(2, 9, 18, 9));
    studio.apply({ do: 'fix' });
    paint(studio, { do: 'tool', tool: 'eraser', sizeMm: 6 }, line(2, 8, 18, 8, 0.3));
    const dates = studio.painting.layers.flatMap((layer) =>
      layer.tiles.flatMap((tile) => tile?.strata.map(({ dried }) => dried?.strokes) ?? []),
    );
    expect(dates.length).toBeGreaterThan(0);
    expect(new Set(dates)).toEqual(new Set([2]));
  });
});

describe('what a journal tells of its strokes', () => {
  it.each([11, 12, 13])('is what the studio knew when it made them (seed %i)', (seed) => {
    const studio = studioFor(26, 20, { ppi: 60 });
    const random = randomFrom(seed);
    const known: Record<string, unknown>[] = [];
    for (let done = 0; done < 160;) {
      const command = commandSchema.parse(randomAct(random, 26, 20));
      const { painting, tools, state } = studio;
      const held = { setting: { ...tools.current }, clock: state.clock, layer: painting.activeLayer };
      try {
        studio.apply(command);
      } catch (error) {
        if (error instanceof PainterError) continue;
        throw error;
      }
      done++;
      if (command.do === 'stroke') known.push({ ...held, number: studio.state.strokes });
      else if (command.do === 'undo' || command.do === 'redo') known.length = 0;
    }
    const told = [...toldStrokes(studio.history)].slice(-known.length || Infinity);
    expect(told.length).toBe(known.length);
    told.forEach(({ setting, clock, layer, number }, i) => {
      const was = known[i];
      expect(number).toBe(was.number);
      expect(clock).toBeCloseTo(was.clock as number, 6);
      expect(setting).toEqual(was.setting);
      if (layer !== undefined) expect(layer).toBe(was.layer);
    });
  });
});
