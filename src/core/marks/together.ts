import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { Sample } from './path';
import type { StrokeInProgress } from './stampedStroke';

/** Strokes that one tool makes at once, on what is dry and on what is wet. */
export class Together implements StrokeInProgress {
  constructor(private readonly strokes: readonly StrokeInProgress[]) {}

  add(sample: Sample): void {
    for (const stroke of this.strokes) stroke.add(sample);
  }

  publish(): PixelRect {
    const rect = noRect();
    for (const stroke of this.strokes) growRect(rect, stroke.publish());
    return rect;
  }

  end(): void {
    for (const stroke of this.strokes) stroke.end();
  }
}
