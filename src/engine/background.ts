import { isPlain } from '@/core/picture/viewOptions';
import type { Screen } from '@/engine/screen/screen';
import type { OpenPainting } from './openPainting';
import { warmUp } from './warmUp';

/** Quiet time after which tiles are prepared for the next stroke, ms. */
const WARM_QUIET_MS = 250;

/** And after which an aid shows what it takes long for. */
const SETTLE_QUIET_MS = 120;
/** And after which the hand rests. */
const RESTS_MS = 800;

/** What is done while nobody asks for anything. */
export class Background {
  private cold = true;

  constructor(private readonly screen: Screen) {}

  /** Does the next piece. @returns whether there is more that need not wait */
  work(open: OpenPainting): boolean {
    const { screen } = this;
    const { studio, autosave, simulation } = open;
    const start = performance.now();
    screen.colourSome(start);
    if (!screen.isColoured) return true;
    let more = false;
    // in a stroke this is done with every frame, and no more
    if (screen.isStale && !studio.strokeInAir) {
      screen.colourWet();
      more = true;
    }
    if (studio.strokeInAir || screen.tries) return more;
    if (this.cold) {
      this.cold = false;
      warmUp();
    }
    const quiet = performance.now() - open.lastChange;
    if (quiet >= SETTLE_QUIET_MS && screen.settle(quiet >= RESTS_MS)) return true;
    if (screen.warmTiles(start, quiet >= WARM_QUIET_MS)) return true;
    simulation.idle(studio, quiet, open.looking);
    if (autosave.snapshotDue(quiet)) open.beginSnapshot();
    if (isPlain(screen.options)) autosave.keepFace(quiet);
    return open.goingBack.run(quiet, open.lastChange) || more;
  }
}
