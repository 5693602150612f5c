import { describe, expect, it } from 'vitest';
import { line, loaded, paint } from '@/measure/bench';
import { type CommandInput } from '@/core/commands/commands';
import { selectionRaster } from '@/core/commands/families/selecting';
import { type Studio } from '@/core/journal/studio';
import { act, canvas, raster } from '@/measure/selectionBench';

const area = (studio: Studio) =>
  selectionRaster(studio.painting).reduce((s, v) => s + v / 255, 0) * studio.painting.cellArea;

/** Cells that differ, inside and outside of what is selected. */
function changed(studio: Studio, before: Uint32Array, selection: Uint8Array): { inside: number; outside: number } {
  const after = raster(studio);
  let [inside, outside] = [0, 0];
  after.forEach((v, i) => {
    // packing dry paint anew may change a code by one
    if ([0, 8, 16].every((c) => Math.abs(((v >>> c) & 255) - ((before[i] >>> c) & 255)) <= 1)) return;
    if (selection[i] > 0) inside++;
    else outside++;
  });
  return { inside, outside };
}

const HALF: CommandInput = { do: 'select', how: 'rectangle', from: [8, 5], to: [20, 18] };

describe('selecting', () => {
  it('shapes have their areas, join, and can be turned round', () => {
    for (const seed of [1, 2]) {
      const studio = canvas({ seed });
      const all = studio.painting.width * studio.painting.height * studio.painting.cellArea;
      act(studio, HALF);
      expect(area(studio)).toBeCloseTo(12 * 13, -0.7);
      act(studio, { do: 'select', how: 'ellipse', from: [10, 7], to: [18, 15], mode: 'subtract' });
      expect(area(studio)).toBeCloseTo(12 * 13 - Math.PI * 16, -0.7);
      act(studio, {
        do: 'select',
        how: 'outline',
        outline: [
          [0, 0],
          [6, 0],
          [0, 6],
        ],
        mode: 'add',
      });
      expect(area(studio)).toBeCloseTo(12 * 13 - Math.PI * 16 + 18, -0.7);
      const before = area(studio);
      act(studio, { do: 'select', how: 'invert' });
      expect(area(studio)).toBeCloseTo(all - before, 1);
      act(studio, { do: 'select', how: 'rectangle', from: [0, 0], to: [30, 5], mode: 'within' });
      expect(area(studio)).toBeLessThan(150);
      act(studio, { do: 'select', how: 'none' });
      expect(studio.painting.selected).toBe(false);
      act(studio, { do: 'undo' });
      expect(studio.painting.selected).toBe(true);
    }
  });

  it('grows and softens', () => {
    const studio = canvas();
    act(studio, HALF);
    const before = area(studio);
    act(studio, { do: 'select', how: 'grow', byMm: 2 });
    expect(area(studio)).toBeCloseTo(16 * 17 - (4 - Math.PI) * 4, -0.9);
    act(studio, { do: 'undo' }, { do: 'select', how: 'soften', byMm: 2 });
    expect(area(studio) / before).toBeCloseTo(1, 1);
    const soft = selectionRaster(studio.painting).filter((v) => v > 10 && v < 245).length;
    expect(soft * studio.painting.cellArea).toBeGreaterThan(50);
  });

  it('by colour takes what looks alike and hangs together', () => {
    const studio = canvas();
    const box = (x: number): [number, number][] => [
      [x, 6],
      [x + 5, 6],
      [x + 5, 16],
      [x, 16],
    ];
    for (const x of [4, 18])
      act(studio, { do: 'silhouette', outline: box(x), mixture: { PB29: 1, PW6: 1 }, thicknessUm: 80 });
    act(studio, { do: 'select', how: 'colour', from: [6, 10], tolerance: 6 });
    expect(area(studio)).toBeCloseTo(50, -1);
    act(studio, { do: 'select', how: 'colour', from: [6, 10], tolerance: 6, touching: false });
    expect(area(studio)).toBeCloseTo(100, -1);
    act(studio, { do: 'select', how: 'painted', layer: 'L2' });
    expect(area(studio)).toBeCloseTo(100, -1);
  });

  it('says what it lacks', () => {
    const studio = canvas();
    expect(() => act(studio, { do: 'select', how: 'grow', byMm: 1 })).toThrow(/Nothing is selected/);
    expect(() => act(studio, { do: 'select', how: 'painted' })).toThrow(/Nothing is there/);
    expect(() => act(studio, { do: 'select', how: 'colour', from: [90, 3] })).toThrow(/not on the canvas/);
    expect(() => act(studio, { do: 'select', how: 'rectangle', from: [1, 1] })).toThrow(/Two corners/);
  });
});

describe('what is not selected stays as it is', () => {
  const tools = [
    'flat',
    'knife',
    'roller',
    'spray',
    'spatter',
    'pastel-soft',
    'charcoal',
    'ink-fast',
    'wash-round',
    'eraser',
    'finger',
    'blender-soft',
    'rag',
  ] as const;
  it.each(tools)('under the %s', (tool) => {
    const studio = canvas();
    paint(studio, ...loaded('flat', 12, { PB29: 1, PW6: 2 }), line(1, 8, 29, 8), line(1, 16, 29, 16));
    act(studio, { do: 'dry' }, { do: 'tool', tool: 'pastel-hard', sizeMm: 8, into: 'layer' });
    act(studio, { do: 'load', mixture: { PY43: 1 } }, line(2, 12, 28, 12));
    paint(studio, ...loaded('flat', 6, { PBr7BS: 1 }), line(2, 11, 28, 13));
    act(studio, HALF);
    const selection = selectionRaster(studio.painting);
    const before = raster(studio);
    act(studio, {
      do: 'tool',
      tool,
      sizeMm: 7,
      ...(tool.startsWith('pastel') || tool === 'charcoal' ? { into: 'layer' as const } : {}),
    });
    try {
      act(studio, { do: 'load', mixture: { PR188: 1, PW6: 1 } });
    } catch {
      // a tool that takes no paint
    }
    for (const s of [line(2, 10, 28, 11), line(12, 2, 15, 22), line(5, 18, 27, 6)]) act(studio, s);
    const { inside, outside } = changed(studio, before, selection);
    // of a wash some water creeps under the tape; its pigment stays inside
    expect(outside).toBeLessThanOrEqual(tool === 'wash-round' ? 0.003 * selection.length : 0);
    expect(inside).toBeGreaterThan(100);
    for (const [pigment, b] of Object.entries(studio.massBalance())) {
      const there = b.film + b.settled + b.strata + b.tool + b.slab + b.removed;
      expect(Math.abs(b.loaded + (b.added ?? 0) - there) / Math.max(1, b.loaded), pigment).toBeLessThan(1e-4);
    }
  });

  it('gives the same bytes however often what is painted is looked at', () => {
    const play = (peek: boolean) => {
      const studio = canvas();
      act(studio, { do: 'select', how: 'ellipse', from: [8, 4], to: [22, 20], edgeMm: 3 });
      for (const tool of ['flat', 'wash-round', 'pastel-soft'] as const) {
        act(studio, { do: 'tool', tool, sizeMm: 7 }, { do: 'load', mixture: { PB29: 1, PW6: 1 } });
        studio.beginStroke();
        for (let i = 0; i <= 30; i++) {
          studio.addSample([i * 20, 2 + i * 0.9, 10 + 3 * Math.sin(i / 4), 0.7]);
          if (peek && i % 3 === 0) studio.publishStroke();
        }
        studio.endStroke();
      }
      return [...raster(studio)].join();
    };
    expect(play(true)).toBe(play(false));
  });

  it('a soft edge lets half of a stroke through where it is half', () => {
    const studio = canvas({ surface: { kind: 'smooth', scale: 1, depth: 1 } });
    act(studio, { do: 'select', how: 'rectangle', from: [-5, -5], to: [15, 30], edgeMm: 8 });
    paint(studio, { do: 'tool', tool: 'spray', sizeMm: 20, strength: 1 }, { do: 'load', mixture: { PB29: 1 } });
    for (let i = 0; i < 4; i++) act(studio, line(4, 12, 26, 12));
    const { painting } = studio;
    const um = (x: number) => {
      const [px, py] = [Math.round(x / painting.mmPerPx), Math.round(12 / painting.mmPerPx)];
      const tile = painting.active.tiles[(py >> 6) * painting.tilesX + (px >> 6)];
      let sum = 0;
      for (let d = -4; d <= 4; d++)
        sum += tile?.volume ? painting.arena.f32[(tile.volume >> 2) + ((py + d) & 63) * 64 + (px & 63)] : 0;
      return sum / 9;
    };
    expect(um(22)).toBe(0);
    expect(um(15) / um(8)).toBeGreaterThan(0.3);
    expect(um(15) / um(8)).toBeLessThan(0.7);
  });

  it('a layer that takes paint only where it has some keeps its outline', () => {
    const studio = canvas();
    const outline: [number, number][] = [
      [8, 6],
      [20, 6],
      [14, 18],
    ];
    act(studio, { do: 'silhouette', outline, mixture: { PB29: 1, PW6: 1 }, thicknessUm: 60 }, { do: 'dry' });
    act(studio, { do: 'select', how: 'painted' });
    const covered = selectionRaster(studio.painting);
    act(studio, { do: 'select', how: 'none' }, { do: 'layer.set', layer: 'L2', onlyPaint: true });
    const before = raster(studio);
    paint(studio, ...loaded('flat', 8, { PY35: 1 }), line(2, 9, 28, 9), line(2, 14, 28, 15));
    const { inside, outside } = changed(studio, before, covered);
    expect(outside).toBe(0);
    expect(inside * studio.painting.cellArea).toBeGreaterThan(30);
  });
});

describe('filling an area', () => {
  /** A round of ink with a gap. */
  const ring = (gapDeg: number) => {
    const studio = canvas();
    act(studio, { do: 'layer.choose', layer: 'L1' }, { do: 'tool', tool: 'ink-fast', sizeMm: 0.9 });
    act(studio, { do: 'load', mixture: { PBk9: 1 } });
    const arc = Array.from({ length: 80 }, (_, i) => ((gapDeg / 2 + ((360 - gapDeg) * i) / 79) * Math.PI) / 180);
    act(studio, {
      do: 'stroke',
      samples: arc.map((a, i) => [i * 20, 15 + 8 * Math.cos(a), 12 + 8 * Math.sin(a), 0.7]),
    });
    act(studio, { do: 'layer.choose', layer: 'L2' }, { do: 'tool', tool: 'flat', sizeMm: 8, body: 0.5 });
    return studio;
  };
  const filled = (studio: Studio) => {
    act(studio, { do: 'select', how: 'painted', layer: 'L2' });
    return area(studio);
  };

  it('closes gaps, goes under the lines, is wet paint and in the ledger', () => {
    const whole = Math.PI * 64;
    for (const by of ['lines', 'colour'] as const) {
      const studio = ring(14);
      act(studio, { do: 'fill', at: [15, 12], mixture: { PY35: 1 }, by, gapMm: 3, growMm: 0.4, tolerance: 14 });
      expect(studio.massBalance().PY35.film).toBeGreaterThan(0);
      const spill = filled(studio);
      expect(spill / whole).toBeGreaterThan(0.9);
      expect(spill / whole).toBeLessThan(1.1);
    }
    const open = ring(14);
    act(open, { do: 'fill', at: [15, 12], mixture: { PY35: 1 }, by: 'lines', gapMm: 0 });
    expect(filled(open)).toBeGreaterThan(2 * whole);
  });

  it('says why it cannot', () => {
    const studio = ring(0);
    expect(() => act(studio, { do: 'fill', at: [23, 12], mixture: { PY35: 1 }, by: 'lines' })).toThrow(/on a line/);
    act(studio, { do: 'layer.choose', layer: 'L1' });
    expect(() => act(studio, { do: 'fill', at: [15, 12], mixture: { PY35: 1 } })).toThrow(/takes sticks and ink only/);
  });
});
