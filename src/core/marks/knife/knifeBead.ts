import type { FilmWindow } from '@/core/film/window/window';
import type { Reservoir } from '@/core/marks/brush/reservoir';
import { maths } from '@/core/maths/maths';
import type { Painting } from '@/core/film/painting';
import type { BladeEdge } from './bladeEdge';
import { makeLumpy } from './lumpyBead';

/** Length over which paint on the blade follows down to its edge, mm. */
const FEED_MM = 5;
/** A bead as thick as this runs along the blade freely, um over 1 mm: less is held by it. */
const RUNNING_UM = 1200;

/**
 * Paint on a blade while it strokes: the bead at its edge, column by column in the channels of the window, and what sits
 * further up and follows down.
 */
export class KnifeBead {
  /** Word address: `channels` amounts (washes, last the volume in um, each times cells) for each column. */
  address = 0;
  /** 0 while the paint is in the reservoir. */
  channels = 0;
  private further = new Float64Array(0);
  private pigments: readonly number[] = [];

  constructor(
    private readonly painting: Painting,
    private readonly edge: BladeEdge,
    private readonly reservoir: Reservoir,
  ) {}

  /**
   * Spreads the reservoir's columns over those of the blade as it is held, in the window's channels.
   * @param withheld share that is kept off the edge, 0..1
   */
  pack(window: FilmWindow, withheld: number): void {
    const { reservoir: r, painting } = this;
    const { columns } = this.edge;
    const { arena } = painting;
    this.pigments = window.pigments;
    this.channels = window.channels;
    const n = this.channels;
    this.address = arena.allocate(columns * n * 4) >> 2;
    this.further = new Float64Array(columns * n);
    const { f32 } = arena;
    const area = r.cellMm2 / painting.cellArea;
    const spread = (plane: Float32Array, channel: number, put: (at: number, amount: number) => void) => {
      for (let c = 0; c < plane.length; c++) {
        // held on its edge or tip, all paint is on the few columns that touch
        const to = Math.min(columns - 1, Math.floor(((c + 0.5) / plane.length) * columns));
        put(to * n + channel, plane[c] * area);
      }
    };
    const further = (at: number, amount: number) => (this.further[at] += amount);
    const bead = (at: number, amount: number) => {
      f32[this.address + at] += amount * (1 - withheld);
      further(at, amount * withheld);
    };
    r.pigments.forEach((p, i) => {
      spread(r.tipMass[i], this.pigments.indexOf(p), bead);
      spread(r.tuftMass[i], this.pigments.indexOf(p), further);
    });
    spread(r.tipVolume, n - 1, bead);
    spread(r.tuftVolume, n - 1, further);
  }

  /** The bead is uneven as it was taken up. */
  makeLumpy(seed: number): void {
    makeLumpy(this.painting.arena.f32, this.address, this.channels, this.edge, seed);
  }

  /** Puts the paint back into the reservoir. */
  unpack(): void {
    if (this.channels === 0) return;
    const { reservoir: r, painting, channels: n } = this;
    const { columns } = this.edge;
    const { arena } = painting;
    const across = r.tipVolume.length;
    const area = painting.cellArea / r.cellMm2;
    const columnOf = (c: number) => Math.min(columns - 1, Math.floor(((c + 0.5) / across) * columns));
    const gather = (channel: number, amount: (at: number) => number) => {
      // several columns of the reservoir share one of the blade
      const shared = new Float64Array(columns);
      for (let c = 0; c < across; c++) shared[columnOf(c)]++;
      return Float32Array.from({ length: across }, (_, c) => {
        const from = columnOf(c);
        return (amount(from * n + channel) * area) / shared[from];
      });
    };
    const bead = (at: number) => arena.f32[this.address + at];
    const further = (at: number) => this.further[at];
    const tip = this.pigments.map((_, i) => gather(i, bead));
    const tuft = this.pigments.map((_, i) => gather(i, further));
    const kept = this.pigments.map((_, i) => i).filter((i) => tip[i].some((m) => m > 0) || tuft[i].some((m) => m > 0));
    r.pigments = kept.map((i) => this.pigments[i]);
    r.tipMass = kept.map((i) => tip[i]);
    r.tuftMass = kept.map((i) => tuft[i]);
    r.tipVolume = gather(n - 1, bead);
    r.tuftVolume = gather(n - 1, further);
    arena.free(this.address << 2, columns * n * 4);
    this.channels = 0;
  }

  /** Sum of the bead's thickness over all columns, um times cells. */
  volume(): number {
    const { f32 } = this.painting.arena;
    const n = this.channels;
    let sum = 0;
    for (let c = 0; c < this.edge.columns; c++) sum += f32[this.address + c * n + n - 1];
    return sum;
  }

  /**
   * Paint further up follows down to the edge.
   * @param wayMm way that the blade went
   * @param own share of it that may follow, 0..1
   */
  feed(wayMm: number, own: number): void {
    const share = (1 - maths.exp(-wayMm / FEED_MM)) * own;
    if (share <= 0) return;
    const { f32 } = this.painting.arena;
    for (let k = 0; k < this.further.length; k++) {
      const before = f32[this.address + k];
      f32[this.address + k] += this.further[k] * share;
      this.further[k] = Math.max(0, this.further[k] - (f32[this.address + k] - before));
    }
  }

  /** What is thick runs along the blade to where there is less. */
  level(wayMm: number): void {
    const { f32 } = this.painting.arena;
    const n = this.channels;
    const run = 0.02 * Math.min(1, wayMm / 0.25);
    const runs = (RUNNING_UM * this.edge.columnMm) / this.painting.cellArea;
    for (let c = 0; c + 1 < this.edge.columns; c++) {
      const a = this.address + c * n;
      const va = f32[a + n - 1];
      const vb = f32[a + 2 * n - 1];
      const from = va > vb ? a : a + n;
      const to = va > vb ? a + n : a;
      const high = Math.max(va, vb);
      if (high < 1e-6) continue;
      // what is thin is held by the blade and does not run
      const share = (run * Math.min(1, high / runs) * Math.abs(va - vb)) / high;
      for (let i = 0; i < n; i++) {
        const m = f32[from + i] * share;
        f32[from + i] -= m;
        f32[to + i] += m;
      }
    }
  }
}
