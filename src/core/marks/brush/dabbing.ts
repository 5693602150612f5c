import { hypot, maths } from '@/core/maths/maths';
import { randomFrom } from '@/core/surface/noise';
import { StampWalker, type PathPoint, type Stamp } from '@/core/marks/path';

/** Distance of dabs along the way, how far they are scattered, and how far each is drawn, in sizes of the tool. */
const EVERY = 0.42;
const SCATTER = 0.4;
const DRAWN = 0.32;

const clampLean = (degrees: number) => Math.max(-70, Math.min(70, degrees));

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
    const pressure = Math.min(1, at.pressure * (0.6 + 0.55 * this.random()));
    // no two touches are held alike: the handle turns and leans, the wrist swings, the push comes early or late
    const lean = 22 * this.random();
    const leaning = 2 * Math.PI * this.random();
    const twist = at.twist + 70 * (this.random() + this.random() - 1);
    const swing = (this.random() - 0.5) * 1.4;
    const early = 0.6 + 0.8 * this.random();
    const x = at.x + far * maths.cos(angle);
    const y = at.y + far * maths.sin(angle);
    this.touchDown();
    const walker = new StampWalker(this.spacingMm, this.stamp);
    const steps = Math.max(4, Math.ceil(drawn / 0.25));
    for (let i = 0; i <= steps; i++) {
      const s = i / steps;
      walker.add({
        ...at,
        x: x + drawn * (s - 0.5) * maths.cos(heading + swing * s),
        y: y + drawn * (s - 0.5) * maths.sin(heading + swing * s),
        tiltX: clampLean(at.tiltX + lean * maths.cos(leaning)),
        tiltY: clampLean(at.tiltY + lean * maths.sin(leaning)),
        twist: twist + 25 * swing * s,
        // pressed down and lifted
        pressure: pressure * maths.sin(Math.PI * (0.15 + 0.7 * maths.pow(s, early))),
      });
    }
    walker.end();
  }
}
