import type { Triple } from '@/core/colour/colorimetry';
import type { ToolId, ToolSettings } from '@/core/tools/tools';
import { noise2 } from '@/core/surface/noise';
import { apart, CELLS, clamp, plus, type Field, type Idea } from './idea';
import { firm, type Hand, into, off, sweep, type Place, type Press } from './hand';
import type { Palette } from './palette';

/**
 * How a painter fills a mass: strokes along a direction field, where the canvas is still barest, in loads of a few
 * strokes of nearly one colour, each ending where the mass ends or the idea changes.
 */

/** Direction of strokes at a place. */
export type Lie = (x: number, y: number) => Place;

export interface Filling {
  readonly tools: readonly ToolId[];
  readonly size: number;
  readonly length: number;
  readonly lie: Lie;
  /** Share of the mass that is to be covered, and most strokes. */
  readonly cover: number;
  readonly most?: number;
  readonly colour: Idea | ((x: number, y: number) => Triple);
  readonly held?: Partial<ToolSettings>;
  readonly press?: number;
  readonly load?: number;
  /** Most strokes for one load. */
  readonly perLoad?: number;
  /** How far colours of loads differ; and how clearly each goes to the warm or the cool side. */
  readonly jitter?: number;
  readonly pairs?: number;
  readonly spread?: number;
  readonly curl?: number;
  /** How far a stroke goes on over the end of the mass, mm. */
  readonly over?: number;
  /** How far the idea may change along a stroke, Delta E. */
  readonly within?: number;
  /** Share of its length that a stroke must reach to be made where the idea changes. */
  readonly least?: number;
  readonly clean?: 'wipe' | 'rinse';
  readonly downwards?: boolean;
}

export interface Mark extends Partial<ToolSettings> {
  readonly load?: number;
  readonly jitter?: number;
  readonly clean?: 'wipe' | 'rinse';
  readonly shake?: number;
}

/** Step of a traced path, mm; share of a brush's width that counts as covered. */
const STEP_MM = 1.5;
const COVERS = 0.72;
/** A brush is rinsed where the next colour is farther from the last than this. */
const RINSED = 9;

interface Planned {
  readonly path: readonly Place[];
  readonly size: number;
  readonly colour: Triple;
}

export class Planner {
  private last: Triple | undefined;

  constructor(
    readonly hand: Hand,
    private readonly palette: Palette,
    private readonly widthMm: number,
    private readonly heightMm: number,
  ) {}

  /** How a load differs from what was meant: along warm and cool, with a drift over the canvas. */
  private jitter(amount: number, at?: Place, pairs = 0): Triple {
    const { hand } = this;
    const t = hand.normal(0.55) + pairs * hand.pick([-1.3, 1.3]);
    let by: Triple = [hand.normal(0.8), 0.9 * t + hand.normal(0.45), 1.9 * t + hand.normal(0.6)];
    if (at) {
      const warm = 2 * noise2(at[0] / 34, at[1] / 20, 71) - 1;
      const light = 2 * noise2(at[0] / 22, at[1] / 12, 72) - 1;
      by = plus(by, [1.6 * light, 1.5 * warm, 3.2 * warm]);
    }
    return by.map((v) => v * amount) as Triple;
  }

  /** A path through a place along a field, half of it each way. */
  trace(
    [x, y]: Place,
    lie: Lie,
    length: number,
    {
      mass,
      curl = 0,
      over = 0,
      idea,
      within = 9,
    }: { mass?: Field; curl?: number; over?: number; idea?: Idea; within?: number } = {},
  ): Place[] {
    const here = idea?.at(x, y);
    const halves = [1, -1].map((side) => {
      const out: Place[] = [];
      const bend = this.hand.normal(curl);
      const [c, s] = [Math.cos(bend), Math.sin(bend)];
      let [px, py] = [x, y];
      let before: Place | undefined;
      let beyond = over;
      for (let left = length / 2; left > 0; left -= STEP_MM) {
        const [fx, fy] = lie(px, py);
        const n = Math.hypot(fx, fy) || 1;
        let [dx, dy] = [(fx * c - fy * s) / n, (fx * s + fy * c) / n];
        if (before ? dx * before[0] + dy * before[1] < 0 : side < 0) [dx, dy] = [-dx, -dy];
        before = [dx, dy];
        px += STEP_MM * dx;
        py += STEP_MM * dy;
        const outside =
          mass && (px < -6 || py < -6 || px > this.widthMm + 6 || py > this.heightMm + 6 || mass.at(px, py) < 0.5);
        const other = here && apart(idea!.at(px, py), here) > within;
        if (outside || other) beyond -= STEP_MM;
        if (beyond < 0) break;
        out.push([px, py]);
      }
      return out;
    });
    return [...halves[1].reverse(), [x, y], ...halves[0]];
  }

  /** Fills a mass (1 where it is). */
  fill(mass: Field, filling: Filling): void {
    const strokes = this.planned(mass, filling);
    if (filling.downwards) strokes.sort((a, b) => middle(a)[1] - middle(b)[1]);
    let at: Planned | undefined;
    while (strokes.length > 0) {
      // the hand works in neighbourhoods, with what is on the brush
      const from = at;
      const first =
        filling.downwards || !from ? 0 : nearest(strokes, (s) => near(s, from.path.at(-1)!, from.colour, 5));
      const [begun] = strokes.splice(first, 1);
      const together = [begun];
      for (let n = Math.floor((filling.perLoad ?? 3) * this.hand.random()); n > 0 && strokes.length > 0; n--) {
        const next = nearest(strokes, (s) => near(s, middle(begun), begun.colour, 4));
        if (apart(strokes[next].colour, begun.colour) >= 6) break;
        together.push(...strokes.splice(next, 1));
      }
      this.paint(together, filling);
      at = together.at(-1);
    }
  }

  private planned(mass: Field, filling: Filling): Planned[] {
    const { hand } = this;
    const { lie, colour, within, size, length, cover, most = 400, curl = 0.06, over = 1.5, least = 0.25 } = filling;
    const idea = within !== undefined && typeof colour !== 'function' ? colour : undefined;
    const cells: number[] = [];
    mass.values.forEach((v, i) => v > 0.5 && cells.push(i));
    if (cells.length === 0) return [];
    const needed = mass.values;
    const covered = new Uint8Array(mass.values.length);
    let done = 0;
    const coverAround = (x: number, y: number, reach: number) => {
      const [left, top] = [Math.max(0, Math.floor(x * CELLS - reach)), Math.max(0, Math.floor(y * CELLS - reach))];
      for (let j = top; j < Math.min(mass.high, Math.floor(y * CELLS + reach)); j++) {
        for (let i = left; i < Math.min(mass.wide, Math.floor(x * CELLS + reach)); i++) {
          const cell = j * mass.wide + i;
          if (covered[cell]) continue;
          covered[cell] = 1;
          if (needed[cell] > 0.5) done++;
        }
      }
    };
    const out: Planned[] = [];
    for (let tries = 0; tries < 6 * most && out.length < most; tries++) {
      let cell = -1;
      let best = Infinity;
      for (let k = 0; k < 12; k++) {
        const one = hand.pick(cells);
        const bare = covered[one] + 0.2 * hand.random();
        if (bare < best) [best, cell] = [bare, one];
      }
      if (covered[cell]) {
        if (done / cells.length >= cover) break;
        continue;
      }
      const at: Place = [(cell % mass.wide) / CELLS, Math.floor(cell / mass.wide) / CELLS];
      const far = length * Math.exp(hand.normal(0.33));
      const wide = size * Math.exp(hand.normal(0.12));
      let path = this.trace(at, lie, far, { mass, curl, over, idea, within });
      if (path.length * STEP_MM < far * least) {
        if (idea) {
          coverAround(at[0], at[1], CELLS);
          continue;
        }
        // a narrow place: one short touch over its edge
        path = this.trace(at, lie, Math.min(far, 1.3 * wide));
      }
      for (const [x, y] of path) coverAround(x, y, Math.max(1, (wide * COVERS * CELLS) / 2));
      const seen = path.filter((_, i) => i % Math.max(1, path.length >> 2) === path.length >> 3);
      const sum = seen.reduce<Triple>(
        (s, [x, y]) => plus(s, typeof colour === 'function' ? colour(x, y) : colour.at(x, y)),
        [0, 0, 0],
      );
      const mean = sum.map((v) => v / seen.length) as Triple;
      out.push({ path: hand.random() < 0.5 ? [...path].reverse() : path, size: wide, colour: mean });
    }
    return out;
  }

  private paint(strokes: readonly Planned[], filling: Filling): void {
    const { hand } = this;
    const { tools, held, press = 0.55, load = 1.1, jitter = 1, pairs = 0, spread = 1.2, clean = 'wipe' } = filling;
    const sum = strokes.reduce<Triple>((s, { colour }) => plus(s, colour), [0, 0, 0]);
    const colour = plus(sum.map((v) => v / strokes.length) as Triple, this.jitter(jitter, middle(strokes[0]), pairs));
    const tool = hand.pick(tools);
    this.take(tool, strokes[0].size * (tool === 'worn' ? 1.15 : 1), held);
    this.loadWith(colour, load * strokes.length ** 0.6 * Math.exp(hand.normal(0.12)), spread, clean);
    for (const { path } of strokes)
      hand.stroke(path, hand.pick([off, off, sweep, firm, into])(press * Math.exp(hand.normal(0.1))), 0.5, 170);
  }

  private take(tool: ToolId, size: number, held: Partial<ToolSettings> = {}): void {
    this.hand.take(tool, size, {
      floor: 0,
      body: 0.6,
      blend: 0.2,
      strength: 1,
      thin: 0,
      solvent: 0,
      hair: 'bristle',
      ...held,
    });
  }

  private loadWith(colour: Triple, amount: number, spread: number, clean: 'wipe' | 'rinse'): void {
    const other = !this.last || apart(this.last, colour) > RINSED;
    this.last = colour;
    this.hand.load(this.palette.mix(colour, this.hand.random, spread), amount, other ? 'rinse' : clean);
  }

  /** One mark that is meant. */
  mark(
    through: readonly Place[],
    colour: Readonly<Triple>,
    tool: ToolId,
    size: number,
    press: Press,
    { load = 1.2, jitter = 0.6, clean = 'wipe', shake = 0.25, ...held }: Mark = {},
  ): void {
    this.take(tool, size, { body: 0.7, blend: 0.1, ...held });
    this.loadWith(plus(colour, this.jitter(jitter)), load, 1, clean);
    this.hand.stroke(through, press, shake, 120);
  }
}

const middle = ({ path }: Planned): Place => path[path.length >> 1];
const near = ({ path, colour }: Planned, [x, y]: Place, like: Triple, tells: number): number =>
  Math.hypot(path[0][0] - x, path[0][1] - y) / 22 + apart(colour, like) / tells;
function nearest<T>(from: readonly T[], far: (one: T) => number): number {
  let best = 0;
  let least = Infinity;
  from.forEach((one, i) => {
    const d = far(one);
    if (d < least) [least, best] = [d, i];
  });
  return best;
}

/** Strokes turn along edges of the idea (its structure tensor), and lie in the wind elsewhere. */
export function alongForm(idea: Idea, wind: Lie, reach = 6, strength = 3): Lie {
  const field = idea.mixed([1, 0, 0.5]).blurred(reach);
  const { wide, high, values } = field;
  const slopes = [1, wide].map((step) =>
    field.map((_, i) => {
      const [at, last] = step === 1 ? [i % wide, wide - 1] : [Math.floor(i / wide), high - 1];
      return at === 0 || at === last ? 0 : (values[i + step] - values[i - step]) / 2;
    }),
  );
  const product = (a: Field, b: Field) => a.map((v, i) => v * b.values[i]).blurred(reach);
  const [xx, xy, yy] = [product(slopes[0], slopes[0]), product(slopes[0], slopes[1]), product(slopes[1], slopes[1])];
  const edge = xx.map((v, i) => Math.sqrt(Math.max(0, v + yy.values[i])));
  const clear = [...edge.values].sort((a, b) => a - b)[Math.floor(0.9 * edge.values.length)] + 1e-9;
  return (x, y) => {
    const cell = field.cell(x, y);
    const angle = 0.5 * Math.atan2(2 * xy.values[cell], xx.values[cell] - yy.values[cell]) + Math.PI / 2;
    const [wx, wy] = wind(x, y);
    const n = Math.hypot(wx, wy) || 1;
    let [u, v] = [Math.cos(angle), Math.sin(angle)];
    if (u * wx + v * wy < 0) [u, v] = [-u, -v];
    const turns = 0.85 * clamp((edge.values[cell] / clear) * strength);
    return [(wx / n) * (1 - turns) + u * turns, (wy / n) * (1 - turns) + v * turns];
  };
}
