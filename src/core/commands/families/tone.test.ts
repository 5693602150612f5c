import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '@/core/colour/deltaE2000';
import { line, meanLab, paint, studioFor, type Area } from '@/measure/bench';
import { massError } from '@/measure/water/washBench';
import { digest } from '@/core/journal/digest';

const EARTH = { PBr7BU: 1 };
const LEFT: Area = [4, 4, 14, 22];
const RIGHT: Area = [24, 4, 14, 22];

function sheet(tool: 'flat' | 'pastel-soft' | 'wash-round', kind: 'linen-fine' | 'paper-cold') {
  const studio = studioFor(44, 30, { surface: { kind } });
  paint(studio, { do: 'tool', tool, sizeMm: 8, into: 'layer' });
  return studio;
}
const lightness = (studio: ReturnType<typeof sheet>, area: Area) => meanLab(studio, area)[0];

describe('a tone over everything', () => {
  it.each([
    ['flat', 'linen-fine'],
    ['pastel-soft', 'paper-cold'],
    ['wash-round', 'paper-cold'],
  ] as const)('is even, darker the stronger it is, and keeps account of its pigment (%s, %s)', (tool, kind) => {
    const tones = [0.15, 0.4, 0.8].map((strength) => {
      const studio = sheet(tool, kind);
      paint(studio, { do: 'tone', mixture: EARTH, strength });
      expect(deltaE2000(meanLab(studio, LEFT), meanLab(studio, RIGHT))).toBeLessThan(2.5);
      expect(massError(studio)).toBeLessThan(1e-4);
      return lightness(studio, LEFT);
    });
    expect(tones[0] - tones[1]).toBeGreaterThan(2);
    expect(tones[1] - tones[2]).toBeGreaterThan(2);
  });

  it('lies over what is painted, which is seen through it, and is taken back', () => {
    const studio = sheet('flat', 'linen-fine');
    paint(studio, { do: 'load', mixture: { PW6: 1 } }, line(4, 15, 40, 15), { do: 'dry' });
    const before = digest(studio);
    paint(studio, { do: 'tone', mixture: EARTH, strength: 0.3 });
    expect(lightness(studio, [8, 13, 26, 4])).toBeGreaterThan(45);
    paint(studio, { do: 'undo' });
    expect(digest(studio)).toBe(before);
  });

  it('stays where something is selected', () => {
    const studio = sheet('flat', 'linen-fine');
    const bare = lightness(studio, RIGHT);
    paint(studio, {
      do: 'select',
      how: 'outline',
      mode: 'new',
      outline: [
        [0, 0],
        [22, 0],
        [22, 30],
        [0, 30],
      ],
    });
    paint(studio, { do: 'tone', mixture: EARTH, strength: 0.5 });
    expect(lightness(studio, RIGHT)).toBeCloseTo(bare, 3);
    expect(lightness(studio, LEFT)).toBeLessThan(bare - 10);
  });

  it('can be lifted again with a rag while it is wet', () => {
    const studio = sheet('flat', 'linen-fine');
    paint(studio, { do: 'tone', mixture: EARTH, strength: 0.5 });
    const toned = lightness(studio, [12, 13, 20, 4]);
    paint(studio, { do: 'tool', tool: 'rag', sizeMm: 12, solvent: 0.3 });
    for (let k = 0; k < 3; k++) paint(studio, line(4, 15, 40, 15, 0.8));
    expect(lightness(studio, [12, 13, 20, 4])).toBeGreaterThan(toned + 8);
  });

  it('needs something to lay it with', () => {
    const studio = sheet('flat', 'linen-fine');
    paint(studio, { do: 'tool', tool: 'eraser' });
    expect(() => paint(studio, { do: 'tone', mixture: EARTH })).toThrow(/A tone is laid with paint, water or a stick/);
  });
});
