import { REFERENCE_MM } from '@/core/film/basin';
import { noise1, noise2 } from '@/core/surface/noise';
import type { WashForm } from './washForms';

/** One touch of a brush on the paper. Lengths mm. */
export interface Touch {
  readonly x: number;
  readonly y: number;
  readonly pressure: number;
  /** Direction of the stroke, a unit vector. */
  readonly dx: number;
  readonly dy: number;
  /** Speed of the hand, mm/s. */
  readonly speed: number;
  /** Half its width at this pressure. */
  readonly radius: number;
  /** Way of the stroke so far, mm; where in its hairs' unevenness the stroke began. */
  readonly way?: number;
  readonly phase?: number;
  /** Depth of film it wants to leave; what is in the brush decides where this is left out. */
  readonly film?: number;
  /** The film comes on top of what is there, up to this depth, washes: drops that fall into each other. */
  readonly stands?: number;
}

/** Width of a bundle of hairs, mm. */
const LANE_MM = 0.34;
/** How far painted edges stray on a sheet with a tooth of 1, mm (rms), and at most (deviations). */
const WAVER_MM = 0.13;
export const MOST_WAVER = 2.6;
/** Most that one hair differs from another. */
export const MOST_HAIR = 0.95;
/** Roundness of the corners of a bar, shares of half its thickness. */
const CORNER = 0.9;

/** The face of a watercolour brush: where a touch reaches, and how its hairs part. Lengths are mm. */
export class WashFace {
  /** @param relief how much the tooth of the sheet rules a wash @param seed of its hairs and pores */
  constructor(
    private readonly form: WashForm,
    private readonly relief: number,
    private readonly seed: number,
  ) {}

  /** How far the hairs have parted in a brush that leaves a film, 0 not at all .. 1. */
  dryness(film: number): number {
    return Math.max(0, Math.min(1, (0.52 - film) / 0.42)) * this.form.parts;
  }

  /** Width of the zone in which the tooth decides where the outline runs, mm. */
  ragged(film: number): number {
    return (0.9 + 2.5 * this.dryness(film) + this.form.ragged) * Math.min(1.3, this.relief) * REFERENCE_MM;
  }

  /** How far inside the outline of the touch a place lies, mm; negative outside. */
  outline(t: Touch, ex: number, ey: number, across: number, along: number): number {
    if (this.form.shape === 'bar') {
      const half = t.radius * this.form.thick;
      const round = half * CORNER;
      const qx = Math.abs(across) - t.radius + round;
      const qy = Math.abs(along) - half + round;
      return round - (qx > 0 && qy > 0 ? Math.sqrt(qx * qx + qy * qy) : Math.max(qx, qy));
    }
    const belly = t.radius - Math.sqrt(ex * ex + ey * ey);
    const tail = this.tail(t);
    if (tail <= t.radius || along >= 0) return belly;
    const left = 1 + along / tail;
    return left > 0 ? Math.max(belly, 0.8 * (t.radius * left * (1 + 0.35 * (1 - left)) - Math.abs(across))) : belly;
  }

  /** How far the point trails behind the belly, mm: in a stroke no farther than it has come since it was set down. */
  tail({ radius, way = Infinity }: Touch): number {
    return Math.min(radius * this.form.point, 0.4 * radius + way);
  }

  /** How far inside the touch a place lies, mm, with the holes of a sponge. */
  inside(t: Touch, ex: number, ey: number, across: number, along: number): number {
    const edge = this.outline(t, ex, ey, across, along);
    if (this.form.shape !== 'pores') return edge;
    const size = Math.max(0.7, t.radius * 0.16);
    if (this.form.thirsty) {
      const pore =
        noise2(across / size, along / size, this.seed) +
        0.5 * noise2((2.3 * across) / size, (2.3 * along) / size, this.seed + 7);
      return Math.min(edge, (pore - 0.78 + 0.5 * (t.pressure - 0.5)) * size * 1.5);
    }
    // a sponge prints the walls between its holes, and rests on some of its lobes only; every dab on others
    const at = t.phase ?? 0;
    const lobe = noise2(across / (3.4 * size) + at, along / (3.4 * size), this.seed + 1);
    const hole = noise2(across / (1.3 * size) + at, along / (1.3 * size), this.seed + 2);
    const fine = noise2((2.9 * across) / size + at, (2.9 * along) / size, this.seed + 7);
    const walls = 0.34 - Math.abs(hole - 0.45) + 0.6 * (fine - 0.5);
    return Math.min(
      edge + (lobe - 0.6) * t.radius,
      (walls + 0.55 * (lobe - 0.5) + 0.5 * (t.pressure - 0.6)) * size * 1.6,
    );
  }

  /** Unevenness of the hairs across the brush, about -0.5..0.5. */
  hair(across: number, place: number, phase: number): number {
    const lane = (across + 50) / LANE_MM;
    const own = noise2(lane, place / 22 + phase, this.seed);
    const bundle = noise2(lane / 4.3, place / 34 + phase, this.seed + 11);
    return 1.1 * own + 0.8 * bundle - 0.95;
  }

  /** How much paint the hairs carry at a place from the middle of a touch, 1 = all alike. */
  carries(t: Touch, ex: number, ey: number): number {
    const { streaky } = this.form;
    if (streaky === 0) return 1;
    const across = ey * t.dx - ex * t.dy;
    const place = (t.way ?? 0) + ex * t.dx + ey * t.dy;
    const phase = t.phase ?? 0;
    const hairs = noise2(across / (0.25 * t.radius + 0.3) + 40, place / 26 + phase, this.seed);
    const belly = noise1(place / 15 + phase, this.seed + 5);
    return 1 + streaky * (hairs + 0.8 * belly - 0.9);
  }

  /** How far along the stroke the hairs of a bar that parts reach at a place across it. @param uneven see `uneven` */
  reaches(across: number, uneven: number): number {
    return uneven * (2 * noise1((across + 50) / LANE_MM / 1.7, this.seed + 3) - 1);
  }

  /** How far the outline strays from where the brush was set, mm (rms). */
  waver(t: Touch): number {
    if (this.form.thirsty) return 0;
    return (
      (this.form.streaky > 0 ? 1 : 0.3) *
      Math.min(WAVER_MM * (0.6 + 0.45 * Math.min(1.3, this.relief)), 0.07 * t.radius)
    );
  }

  /** How far some hairs of a bar that parts reach before others, mm. */
  uneven(t: Touch, film: number): number {
    return this.dryness(film) * Math.min(3.4, 0.55 * t.radius);
  }
}
