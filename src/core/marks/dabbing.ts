import { hypot, maths } from '@/core/maths/maths';
import { randomFrom } from '@/core/surface/noise';
import { StampWalker, type PathPoint, type Stamp } from './path';

/** Distance of dabs along the way, how far they are scattered, and how far each is drawn, in sizes of the tool. */
const EVERY = 0.42;
const SCATTER = 0.4;
const DRAWN = 0.32;

/**
 * Scattered dabbing: instead of being drawn along the path, the tool is set down again and again beside it, turned
 * at random, and drawn a short way each time.
 */
export class DabWalker {
  private readonly random: () => number;
  private last: PathPoint | undefined;
  private since = Infinity;

  constructor(
    private readonly sizeMm: number,
    seed: number,
    private readonly spacingMm: (point: PathPoint, dx: number, dy: number) => number,
    private readonly touchDown: () => void,
    private readonly stamp: (stamp: Stamp) => void,
  ) {
    this.random = randomFrom(seed);
  }

  add(point: PathPoint): void {
    if (this.last) this.since += hypot(point.x - this.last.x, point.y - this.last.y);
    this.last = point;
    if (this.since < EVERY * this.sizeMm) return;
    this.since = 0;
    this.dab(point);
  }

  end(): void {}

  private dab(at: PathPoint): void {
    const angle = 2 * Math.PI * this.random();
    const far = SCATTER * this.sizeMm * Math.sqrt(this.random());
    const heading = 2 * Math.PI * this.random();
    const drawn = DRAWN * this.sizeMm * (0.5 + this.random());
    const pressure = Math.min(1, at.pressure * (0.75 + 0.4 * this.random()));
    const x = at.x + far * maths.cos(angle);
    const y = at.y + far * maths.sin(angle);
    this.touchDown();
    const walker = new StampWalker(this.spacingMm, this.stamp);
    const steps = Math.max(4, Math.ceil(drawn / 0.25));
    for (let i = 0; i <= steps; i++) {
      const s = i / steps;
      walker.add({
        ...at,
        x: x + drawn * (s - 0.5) * maths.cos(heading),
        y: y + drawn * (s - 0.5) * maths.sin(heading),
        // pressed down and lifted
        pressure: pressure * maths.sin(Math.PI * (0.15 + 0.7 * s)),
      });
    }
    walker.end();
  }
}
