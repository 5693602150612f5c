import { describe, expect, test } from 'vitest';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { paintingSchema } from '@/core/journal/journalSchema';
import { Studio } from '@/core/journal/studio';
import { Picture, STUDIO_LIGHT, type Light } from './picture';
import { readAround, readSpot } from './readings';

const LIGHTS: readonly Light[] = [
  STUDIO_LIGHT,
  { azimuth: 20, elevation: 8, room: 0.05, finish: 1, warmth: 1 },
  { azimuth: 200, elevation: 80, room: 0.9, finish: 0, warmth: -1 },
];
const MIXTURES = [{ PB29: 1, PW6: 3 }, { PY43: 2, PW6: 5, PR188: 0.02 }, { PBr7BU: 1 }] as const;

function stroked(mixture: Record<string, number>, seed: number, ppi: number, dry: boolean) {
  const studio = new Studio(
    paintingSchema.parse({ widthMm: 60, heightMm: 30, ppi, seed, tone: { mixture: { PY43: 1, PW6: 2 } } }),
  );
  const commands: CommandInput[] = [
    { do: 'tool', tool: 'flat', sizeMm: 14 },
    { do: 'load', mixture },
    { do: 'stroke', samples: Array.from({ length: 20 }, (_, i) => [i * 10, 8 + 1.6 * i, 15, 0.6]) },
    ...(dry ? [{ do: 'dry' } as const] : []),
  ];
  for (const c of commands) studio.apply(commandSchema.parse(c));
  return studio;
}

describe('sampling', () => {
  test.each([
    [1, 100, false],
    [2, 150, false],
    [3, 100, true],
  ])(
    'a stroke under any light gives the mixture that was laid, to 1 part in 200 (seed %i, %i ppi, dry %s)',
    (seed, ppi, dry) => {
      for (const mixture of MIXTURES) {
        const studio = stroked(mixture, seed, ppi, dry);
        const { width, height } = studio.painting;
        const total = Object.values(mixture).reduce((p, q) => p + q, 0);
        for (const light of LIGHTS) {
          const picture = new Picture(studio.painting);
          picture.light = light;
          picture.update({ left: 0, top: 0, right: width, bottom: height });
          const [x, y] = [Math.round(width * 0.25), height >> 1];
          for (const reading of [readSpot(picture, x, y), readAround(picture, x, y, 6)]) {
            for (const [id, part] of Object.entries(mixture)) {
              expect(Math.abs((reading.mixture[id] ?? 0) - part / total)).toBeLessThan(1 / 200);
            }
          }
        }
      }
    },
  );

  test('the light changes what is seen and nothing that is sampled', () => {
    const studio = stroked(MIXTURES[0], 4, 100, false);
    const { width, height } = studio.painting;
    const readings = LIGHTS.map((light) => {
      const picture = new Picture(studio.painting);
      picture.light = light;
      picture.update({ left: 0, top: 0, right: width, bottom: height });
      return readAround(picture, Math.round(width * 0.3), height >> 1, 4);
    });
    expect(readings[1].mixture).toEqual(readings[0].mixture);
    expect(readings[1].lab).toEqual(readings[0].lab);
    expect(readings[1].srgb).not.toEqual(readings[0].srgb);
  });

  test('a spot over the border of two colours has some of both; a point has one', () => {
    const studio = stroked({ PB29: 1 }, 5, 100, true);
    const more: CommandInput[] = [
      { do: 'rinse' },
      { do: 'load', mixture: { PW6: 1 } },
      { do: 'stroke', samples: Array.from({ length: 20 }, (_, i) => [i * 10, 8 + 1.6 * i, 23, 0.6]) },
    ];
    for (const c of more) studio.apply(commandSchema.parse(c));
    const { width, height, mmPerPx } = studio.painting;
    const picture = new Picture(studio.painting);
    picture.update({ left: 0, top: 0, right: width, bottom: height });
    const border = readAround(picture, Math.round(width * 0.3), Math.round(17 / mmPerPx), 14);
    expect(border.mixture.PB29).toBeGreaterThan(0.1);
    expect(border.mixture.PW6).toBeGreaterThan(0.1);
    const point = readSpot(picture, Math.round(width * 0.3), Math.round(10 / mmPerPx));
    expect(point.mixture).toEqual({ PB29: 1 });
  });

  test('one layer alone: what lies above it is looked through', () => {
    const studio = stroked({ PR188: 1 }, 6, 100, true);
    const below = studio.painting.activeLayer;
    const more: CommandInput[] = [
      { do: 'layer.add' },
      { do: 'rinse' },
      { do: 'load', mixture: { PW6: 1 } },
      { do: 'stroke', samples: Array.from({ length: 20 }, (_, i) => [i * 10, 8 + 1.6 * i, 15, 0.6]) },
    ];
    for (const c of more) studio.apply(commandSchema.parse(c));
    const { width, height } = studio.painting;
    const picture = new Picture(studio.painting);
    picture.update({ left: 0, top: 0, right: width, bottom: height });
    const [x, y] = [Math.round(width * 0.25), height >> 1];
    expect(Object.keys(readSpot(picture, x, y).mixture)).toEqual(['PW6']);
    expect(Object.keys(readSpot(picture, x, y, below).mixture)).toEqual(['PR188']);
  });
});
