import { describe, expect, it, vi } from 'vitest';
import { startSettings } from '@/core/tools/tools';
import { Pace } from './pace';

/** A clock that only goes on while work is done. */
function withClock(run: (work: (ms: number) => () => void) => void): void {
  let now = 0;
  const clock = vi.spyOn(performance, 'now').mockImplementation(() => now);
  run((ms) => () => void (now += ms));
  clock.mockRestore();
}

/** A pace whose first, slow stroke is over. */
function awake(work: (ms: number) => () => void): Pace {
  const pace = new Pace();
  pace.begin();
  pace.work(work(900), [
    [0, 0, 0, 0.5],
    [10, 50, 0, 0.5],
  ]);
  pace.end({ ...startSettings('flat'), sizeMm: 10 }, 0.25);
  return pace;
}

it('leaves out the time that water took in a stroke', () => {
  withClock((work) => {
    const readings = [
      [0, 0, 0, 0.5],
      [100, 100, 0, 0.5],
    ];
    const paces = [0, 800].map((water) => {
      const pace = awake(work);
      const mop = { ...startSettings('mop'), sizeMm: 10 };
      pace.begin();
      pace.work(work(1000), readings);
      pace.end(mop, 0.25, water);
      return pace.of(mop)!;
    });
    expect(paces[1] / paces[0]).toBeCloseTo(5, 5);
  });
});

describe('the pace of a tool', () => {
  const flat = { ...startSettings('flat'), sizeMm: 10 };
  const way = (mm: number) => [
    [0, 0, 0, 0.5],
    [10, mm, 0, 0.5],
  ];

  it('is the way of its stroke over the time that it took', () => {
    withClock((work) => {
      const pace = awake(work);
      expect(pace.of(flat)).toBeUndefined();
      pace.begin();
      pace.work(work(40), way(50));
      pace.work(work(10));
      pace.end(flat, 0.25);
      // 200 cells in 50 ms
      expect(pace.of(flat)).toBeCloseTo(4000);
    });
  });

  it('is unknown at another size, and of strokes too short to tell', () => {
    withClock((work) => {
      const pace = awake(work);
      pace.begin();
      pace.work(work(5), way(2));
      pace.end(flat, 0.25);
      expect(pace.of(flat)).toBeUndefined();
      pace.begin();
      pace.work(work(50), way(50));
      pace.end(flat, 0.25);
      expect(pace.of({ ...flat, sizeMm: 30 })).toBeUndefined();
      expect(pace.of({ ...flat, tool: 'round' })).toBeUndefined();
    });
  });

  it('is not said of a slow hand that was followed with ease', () => {
    withClock((work) => {
      const pace = awake(work);
      const slow = [
        [0, 0, 0, 0.5],
        [2000, 50, 0, 0.5],
      ];
      pace.begin();
      pace.work(work(400), slow);
      pace.end(flat, 0.25);
      expect(pace.of(flat)).toBeUndefined();
      pace.begin();
      pace.work(work(1900), slow);
      pace.end(flat, 0.25);
      expect(pace.of(flat)).toBeCloseTo(105, 0);
      // ease at a better pace counts
      pace.begin();
      pace.work(work(400), slow);
      pace.end(flat, 0.25);
      expect(pace.of(flat)).toBeGreaterThan(200);
    });
  });

  it('forgets one busy moment', () => {
    withClock((work) => {
      const pace = awake(work);
      for (const ms of [50, 500, 50, 50, 50, 50, 50]) {
        pace.begin();
        pace.work(work(ms), way(50));
        pace.end(flat, 0.25);
      }
      expect(pace.of(flat)).toBeGreaterThan(3000);
    });
  });
});
