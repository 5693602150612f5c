import { describe, expect, it } from 'vitest';
import { histogramPath } from '@/room/easel/layers/Histogram';
import { cssMatrix, moveCommand, pulled, sidesOf } from './movePiece';
import { meshOver, type Corner, type Moving } from './pieceStore';

const BOX: Corner[] = [
  [10, 10],
  [30, 10],
  [30, 20],
  [10, 20],
];
const round = (list: readonly Corner[]) => list.map((p) => p.map((v) => Math.round(v * 1000) / 1000));
const moving = (corners: Corner[], mesh = meshOver(corners)): Moving => ({
  piece: { box: { left: 10, top: 10, right: 30, bottom: 20 }, width: 1, height: 1, rgba: new Uint8ClampedArray(4) },
  image: {} as ImageBitmap,
  corners,
  mesh,
});

describe('handles', () => {
  it('move, scale about the corner across, stretch, skew and turn', () => {
    expect(pulled(BOX, { what: 'move' }, [0, 0], [5, -2], false)).toEqual([
      [15, 8],
      [35, 8],
      [35, 18],
      [15, 18],
    ]);
    // in proportion, then free
    expect(round(pulled(BOX, { what: 'corner', at: 2 }, [30, 20], [50, 22], false))).toEqual([
      [10, 10],
      [50, 10],
      [50, 30],
      [10, 30],
    ]);
    expect(round(pulled(BOX, { what: 'corner', at: 2 }, [30, 20], [50, 22], true))).toEqual([
      [10, 10],
      [50, 10],
      [50, 22],
      [10, 22],
    ]);
    expect(round(pulled(BOX, { what: 'side', at: 1 }, [30, 15], [40, 19], false))).toEqual([
      [10, 10],
      [40, 10],
      [40, 20],
      [10, 20],
    ]);
    expect(round(pulled(BOX, { what: 'side', at: 0 }, [20, 10], [25, 10], true))).toEqual([
      [15, 10],
      [35, 10],
      [30, 20],
      [10, 20],
    ]);
    const turned = pulled(BOX, { what: 'turn' }, [20, 0], [35, 15], false);
    expect(round(turned)).toEqual([
      [25, 5],
      [25, 25],
      [15, 25],
      [15, 5],
    ]);
    expect(round(sidesOf(turned))[0]).toEqual([25, 15]);
    // by steps of 15 degrees
    const stepped = pulled(BOX, { what: 'turn' }, [20, 0], [21, 0], true);
    expect(round(stepped)).toEqual(BOX);
  });
});

describe('the command of a move', () => {
  it('is none where nothing moved, a plain matrix for a move, corners and mesh as they are', () => {
    expect(moveCommand(moving(BOX), 'free', ['L2'], false)).toBeUndefined();
    expect(moveCommand(moving(BOX), 'mesh', ['L2'], false)).toBeUndefined();
    const there = BOX.map(([x, y]) => [x + 3, y + 1] as Corner);
    expect(moveCommand(moving(there), 'free', ['L2'], true)).toEqual({
      do: 'transform',
      layers: ['L2'],
      copy: true,
      matrix: [1, 0, 0, 1, 3, 1],
    });
    const turned = pulled(BOX, { what: 'turn' }, [20, 0], [35, 15], false);
    const { matrix } = moveCommand(moving(turned), 'free', ['L2'], false)!;
    const [a, b, c, d, e, f] = matrix!;
    BOX.forEach(([x, y], i) => {
      expect(a * x + c * y + e).toBeCloseTo(turned[i][0], 6);
      expect(b * x + d * y + f).toBeCloseTo(turned[i][1], 6);
    });
    const pulledCorner = BOX.map((p, i) => (i === 1 ? [35, 8] : p) as Corner);
    expect(moveCommand(moving(pulledCorner), 'corners', ['L2'], false)!.corners![1]).toEqual([35, 8]);
    const mesh = meshOver(BOX).map((p, i) => (i === 5 ? [18, 14] : p) as Corner);
    expect(moveCommand(moving(BOX, mesh), 'mesh', ['L2'], false)!.mesh!.points[5]).toEqual([18, 14]);
  });

  it('the preview lies where the corners are', () => {
    const places = [
      [3, 4],
      [90, 10],
      [80, 70],
      [5, 60],
    ].map(([x, y]) => ({ x, y }));
    const m = cssMatrix(40, 20, places).slice(9, -1).split(',').map(Number);
    [
      [0, 0],
      [40, 0],
      [40, 20],
      [0, 20],
    ].forEach(([x, y], i) => {
      const w = m[3] * x + m[7] * y + m[15];
      expect((m[0] * x + m[4] * y + m[12]) / w).toBeCloseTo(places[i].x, 4);
      expect((m[1] * x + m[5] * y + m[13]) / w).toBeCloseTo(places[i].y, 4);
    });
  });
});

describe('a histogram', () => {
  it('stands highest where most is, and is closed', () => {
    const counts = new Array<number>(256).fill(0);
    counts[100] = 50;
    counts[150] = 10;
    const path = histogramPath(counts);
    const y = (x: number) => Number(new RegExp(`L${x} ([\\d.]+)`).exec(path)![1]);
    expect(y(100)).toBeLessThan(y(150));
    expect(y(150)).toBeLessThan(y(20));
    expect(path.endsWith('Z')).toBe(true);
  });
});
