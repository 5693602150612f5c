import { tilesIn } from '@/core/film/tilesIn';
import { GRAPHITE, pigmentIndex } from '@/core/colour/pigments';
import { FRAME, flowFactor, WASH_UM, WET } from '@/core/film/basin';
import { TILE } from '@/core/film/cells';
import type { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import type { Painting } from '@/core/film/painting';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import type { Wash } from '@/core/film/wash';
import { glazeTile } from '@/core/flow/glazing';
import { flowOf, type BeforeTile, type Flow } from '@/core/flow/flowing';
import { washRates } from '@/core/flow/washRates';
import { MOST_HAIR, MOST_WAVER, WashFace, type Touch } from './washFace';
import type { WashForm } from './washForms';
import type { WashInHand } from './washLoad';

interface Carried {
  readonly pigment: number;
  readonly suspended: number;
  readonly settled: number;
  readonly under: number;
  readonly loose: number;
  readonly concentration: number;
  /** What the brush still has of it, coats over one cell: no more can be given. */
  left: number;
  readonly scrub: number;
  readonly floor: number;
  gain: number;
}

/** Graphite is greasy: water leaves it where it lies. */
const GRAPHITE_INDEX = pigmentIndex(GRAPHITE);
/** Paper whose moisture is below this share of what it holds counts as dry: what lies there is under what comes. */
const DRY_PAPER = 0.1;

/**
 * Exchanges water and pigment between a brush and the sheet. A brush brings the film to the depth that it wants to
 * leave, from either side: a wet one gives, a thirsty one takes, and strokes that overlap in a wet bead do not add up.
 * Everything that leaves the brush is on the sheet and the other way round.
 */
export class WashTip {
  private readonly flow: Flow;
  private readonly face: WashFace;
  /** Cells touched since they were last taken. */
  private touched = noRect();

  constructor(
    private readonly painting: Painting,
    private readonly layer: Layer,
    private readonly before: BeforeTile,
    private readonly form: WashForm,
    private readonly load: WashInHand,
    seed: number,
    /** Shares: ceiling of the paint that is left, and how far it only moves what it finds. */
    private readonly strength: number,
    private readonly blend: number,
    private readonly guard?: Guard,
    face?: WashFace,
  ) {
    this.flow = flowOf(painting);
    this.face = face ?? new WashFace(form, this.flow.bed.relief, seed);
  }

  takeTouched(): PixelRect {
    const rect = this.touched;
    this.touched = noRect();
    return rect;
  }

  touch(t: Touch): void {
    const { painting, load } = this;
    const { mmPerPx, width, height, tilesX } = painting;
    const film = t.film ?? load.film;
    const fringe = 0.5 * this.face.ragged(film) + MOST_WAVER * this.face.waver(t);
    const [left, up, right, down] = this.reach(t, film);
    const x0 = Math.max(0, Math.floor((t.x - left - fringe) / mmPerPx));
    // a flow cell at the sheet's edge is covered whole
    const flowCell = flowFactor(mmPerPx);
    const last = (cells: number) => Math.ceil(cells / flowCell) * flowCell - 1;
    const x1 = Math.min(last(width), Math.ceil((t.x + right + fringe) / mmPerPx));
    const y0 = Math.max(0, Math.floor((t.y - up - fringe) / mmPerPx));
    const y1 = Math.min(last(height), Math.ceil((t.y + down + fringe) / mmPerPx));
    if (x1 < x0 || y1 < y0) return;
    let used = 0;
    const gains = new Map<number, number>();
    const touched = { left: x0, top: y0, right: x1 + 1, bottom: y1 + 1 };
    for (const { index, part } of tilesIn(touched, tilesX)) {
      used += this.touchTile(index, part, t, film, gains, load.water - used);
    }
    load.gave(used, gains, this.strength * (1 - this.blend));
    growRect(this.touched, touched);
  }

  /** How far a touch reaches to the left, up, right and down, mm. */
  private reach(t: Touch, film: number): [number, number, number, number] {
    const { form, face } = this;
    const { radius, dx, dy } = t;
    if (form.shape === 'bar') {
      // a bar across the stroke reaches less far along it
      const long = radius * form.thick + face.uneven(t, film);
      const x = radius * Math.abs(dy) + long * Math.abs(dx);
      const y = radius * Math.abs(dx) + long * Math.abs(dy);
      return [x, y, x, y];
    }
    const tail = face.tail(t);
    return [
      Math.max(radius, tail * dx),
      Math.max(radius, tail * dy),
      Math.max(radius, -tail * dx),
      Math.max(radius, -tail * dy),
    ];
  }

  /** @param has water in the brush, um mm2 @returns water that left it */
  private touchTile(
    index: number,
    rect: PixelRect,
    t: Touch,
    film: number,
    gains: Map<number, number>,
    has: number,
  ): number {
    const { painting, layer, flow, form } = this;
    const { mmPerPx, arena, tilesX } = painting;
    const { face, guard } = this;
    const { bed } = flow;
    const state = layer.basin?.state[index] ?? 0;
    this.before(layer, index);
    if (state === 0) glazeTile(arena, layer.ensureTile(index, arena));
    if (state !== WET) flow.wake(layer, index, this.before);
    const basin = flow.basin(layer);
    const tile = layer.ensureTile(index, arena);
    const wash = tile.wash!;
    tile.version++;
    const carried = this.carriedOn(wash, gains);
    const { f32 } = arena;
    const { factor } = basin;
    const relief = Math.min(1.3, bed.relief);
    const dryness = face.dryness(film);
    // how far the hair reaches into the tooth: wet brushes bridge everything, dry ones meet the peaks
    const parted =
      dryness <= 0
        ? 0
        : (0.22 + 0.5 * dryness + 0.14 * Math.min(1, t.speed / 85) - 0.22 * (t.pressure - 0.5)) *
          Math.min(0.95, relief * 1.1);
    // the hairs part little by little
    const threshold = dryness <= 0 ? -1 : -0.15 + (parted + 0.15) * Math.min(1, 3 * dryness);
    const ragged = face.ragged(film);
    // a flow cell whose middle lies further out than this is not met
    const waver = face.waver(t);
    const uneven = form.shape === 'bar' ? face.uneven(t, film) : 0;
    const strayMost = 0.5 * ragged + MOST_WAVER * waver + uneven;
    // hairs of a bar that reach farther along it than this do not meet a cell
    const farthest = t.radius * form.thick + strayMost - uneven;
    const beyond = -strayMost - 0.71 * factor * mmPerPx;
    // and one whose middle lies so far in is met wholly, whatever the sheet makes of the edge
    const deep = form.shape === 'pores' ? Infinity : strayMost + (1 + 0.71 * factor) * mmPerPx;
    const hairs = (form.shape === 'bar' ? 0.62 : 0.45) * dryness;
    const hairsMost = hairs * MOST_HAIR + 0.5 / 7;
    const way = t.way ?? 0;
    const phase = t.phase ?? 0;
    // what hair that is drawn over the tooth bridges: the cells that it came over last
    const trailX = (-0.3 * t.dx) / mmPerPx;
    const trailY = (-0.3 * t.dy) / mmPerPx;
    const thirsty = form.thirsty === true;
    // what falls from above does not stir
    const exchange = t.stands === undefined ? form.exchange + (0.35 - form.exchange) * this.blend : 0;
    const scrub = form.scrub;
    const cellMm2 = mmPerPx * mmPerPx;
    const coarseMm2 = cellMm2 * factor * factor;
    const masking = wash.resist.masking >> 2;
    const wax = wash.resist.wax >> 2;
    const tileLeft = (index % tilesX) * TILE;
    const tileTop = Math.floor(index / tilesX) * TILE;
    // cells of a flow cell: where they lie in it, how far each is met and rubbed, and its place in the tile
    const cells = factor * factor;
    const offX = Int32Array.from({ length: cells }, (_, q) => q % factor);
    const offY = Int32Array.from({ length: cells }, (_, q) => Math.floor(q / factor));
    const contact = new Float64Array(cells);
    const rub = new Float64Array(cells);
    const places = new Int32Array(cells);
    const covers = basin.cover + basin.coverStride + FRAME;
    let used = 0;
    const left = Math.floor(rect.left / factor);
    const right = Math.ceil(rect.right / factor);
    const top = Math.floor(rect.top / factor);
    const bottom = Math.ceil(rect.bottom / factor);
    for (let J = top; J < bottom; J++) {
      for (let I = left; I < right; I++) {
        const mx = (I + 0.5) * factor * mmPerPx - t.x;
        const my = (J + 0.5) * factor * mmPerPx - t.y;
        const middle = face.outline(t, mx, my, my * t.dx - mx * t.dy, mx * t.dx + my * t.dy);
        if (middle < beyond) continue;
        const whole = middle > deep;
        const coarse = (J + 1) * basin.stride + I + FRAME;
        const damp = f32[basin.at.moisture + coarse];
        let sum = 0;
        let share = 0;
        for (let q = 0; q < cells; q++) {
          const px = I * factor + offX[q];
          const py = J * factor + offY[q];
          const cover = covers + py * basin.coverStride + px;
          const cell = (py - tileTop) * TILE + px - tileLeft;
          places[q] = cell;
          contact[q] = 0;
          let f = 1;
          let across = 0;
          let along = 0;
          let h = 0;
          // deep in a wet touch the sheet has no say
          if (!whole || dryness > 0 || scrub > 0) {
            const ex = (px + 0.5) * mmPerPx - t.x;
            const ey = (py + 0.5) * mmPerPx - t.y;
            across = ey * t.dx - ex * t.dy;
            along = ex * t.dx + ey * t.dy;
            const shifted = uneven > 0 && !whole ? along + face.reaches(across, uneven) : along;
            if (uneven > 0 && Math.abs(shifted) > farthest) {
              share += f32[cover];
              continue;
            }
            const on = bed.cell(px, py);
            h = f32[bed.tooth + on];
            if (!whole) {
              const strays = waver > 0 ? waver * f32[bed.waver + on] : 0;
              f = (face.inside(t, ex, ey, across, shifted) + (h - 0.5) * ragged + strays) / mmPerPx;
            }
          }
          if (guard) f *= guard.at(px, py);
          if (masking) f *= 1 - f32[masking + cell];
          if (wax) f *= 1 - f32[wax + cell];
          if (f > 0) {
            if (f > 1) f = 1;
            if (dryness > 0 && f32[cover] < 0.5) {
              const one =
                f32[bed.tooth + bed.cell(Math.max(0, Math.round(px + trailX)), Math.max(0, Math.round(py + trailY)))] -
                0.05;
              const two =
                f32[
                  bed.tooth +
                    bed.cell(Math.max(0, Math.round(px + 2 * trailX)), Math.max(0, Math.round(py + 2 * trailY)))
                ] - 0.13;
              const stands = Math.max(h, one, two) - 0.06 - threshold;
              // what no hair could reach, or any would, needs no hair looked at
              if (stands < -hairsMost) f = 0;
              else if (stands < hairsMost)
                f *= Math.max(0, Math.min(1, (stands - hairs * face.hair(across, way + along, phase)) * 7 + 0.5));
            }
            if (f >= 0.02) {
              contact[q] = f;
              sum += f;
              if (scrub > 0) {
                const far =
                  form.shape === 'bar'
                    ? Math.max((across / t.radius) ** 2, (along / (t.radius * form.thick)) ** 2)
                    : (across * across + along * along) / (t.radius * t.radius);
                rub[q] = far < 1 ? (1 - far) * (0.5 + h) : 0;
              }
              if (f > f32[cover]) {
                if (f32[cover] <= 0 && damp < DRY_PAPER * bed.capacity) for (const c of carried) lieUnder(f32, c, cell);
                f32[cover] = f;
              }
            }
          }
          share += f32[cover];
        }
        if (sum === 0) continue;
        share /= cells;
        sum /= cells;
        f32[basin.at.share + coarse] = share;
        const water = basin.at.water + coarse;
        const depth = f32[water] / share;
        const wanted = t.stands === undefined ? film : Math.max(depth, Math.min(t.stands, depth + film));
        let gives = form.flow * (wanted - depth);
        if (gives > 0) gives = thirsty ? 0 : Math.min(gives, Math.max(0, has - used) / (sum * coarseMm2 * WASH_UM));
        f32[water] += gives * sum;
        used += gives * sum * coarseMm2 * WASH_UM;
        const moisture = basin.at.moisture + coarse;
        if (thirsty && film < 0.32) {
          // thirsty hair drains the paper too
          const drained = f32[moisture] * 0.25 * form.flow * sum;
          f32[moisture] -= drained;
          used -= drained * coarseMm2 * WASH_UM;
        }
        const taken = gives < 0 ? Math.min(0.95, -gives / Math.max(depth, 1e-4)) : 0;
        const strength = this.strength * (1 - this.blend) * face.carries(t, mx, my);
        const wants = Math.max(depth, gives);
        for (const c of carried) {
          const { suspended, loose } = c;
          const own = c.concentration * strength;
          let has = c.left;
          for (let q = 0; q < cells; q++) {
            const f = contact[q];
            if (f === 0) continue;
            const cell = places[q];
            let v = f32[suspended + cell];
            if (loose) v += dissolved(f32, loose + cell, f * film);
            if (scrub > 0) v += scrubbed(f32, c, cell, c.scrub * f * rub[q]);
            let g = (gives > 0 ? gives * own : -taken * v) * f + exchange * f * (own * wants - v);
            if (g > has) g = has;
            if (v + g < 0) g = -v;
            has -= g;
            f32[suspended + cell] = v + g;
          }
          c.gain += c.left - has;
          c.left = has;
        }
      }
    }
    for (const c of carried) if (c.gain !== 0) gains.set(c.pigment, (gains.get(c.pigment) ?? 0) + c.gain * cellMm2);
    return used;
  }

  /** Pigments that can pass between brush and tile; planes are made ready. */
  private carriedOn(wash: Wash, given: ReadonlyMap<number, number>): Carried[] {
    const cellMm2 = this.painting.mmPerPx * this.painting.mmPerPx;
    const all = new Set(wash.pigments);
    for (const [pigment, mass] of this.load.mass) if (mass > 0) all.add(pigment);
    const out: Carried[] = [];
    for (const pigment of [...all].sort((a, b) => a - b)) {
      const n = wash.pigments.indexOf(pigment);
      const dust = n >= 0 && pigment !== GRAPHITE_INDEX && wash.coats.loose[n] !== 0;
      const only = n >= 0 && !dust && !wash.coats.suspended[n] && !wash.coats.settled[n] && !wash.coats.under[n];
      if (only && !(this.load.mass.get(pigment)! > 0)) continue; // ink that stays
      // what is settled may come to lie under what is painted now
      if (n >= 0 && wash.coats.settled[n]) wash.plane('under', pigment);
      wash.plane('suspended', pigment);
      wash.plane('settled', pigment);
      const rates = washRates(pigment);
      out.push({
        pigment,
        suspended: 0,
        settled: 0,
        under: 0,
        loose: 0,
        concentration: this.load.concentration(pigment),
        left: Math.max(0, (this.load.mass.get(pigment) ?? 0) - (given.get(pigment) ?? 0)) / cellMm2,
        scrub: this.form.scrub * (1 - rates.stain) ** 2,
        floor: rates.floor,
        gain: 0,
      });
    }
    return out.map((c) => {
      const k = wash.pigments.indexOf(c.pigment);
      const { suspended, settled, under, loose } = wash.coats;
      const dust = c.pigment === GRAPHITE_INDEX ? 0 : loose[k] >> 2;
      return { ...c, suspended: suspended[k] >> 2, settled: settled[k] >> 2, under: under[k] >> 2, loose: dust };
    });
  }
}

/** What has dried comes to lie under what is painted now. */
function lieUnder(f32: Float32Array, { settled, under }: Carried, cell: number): void {
  if (!under || f32[settled + cell] === 0) return;
  f32[under + cell] += f32[settled + cell];
  f32[settled + cell] = 0;
}

/** Dust that a touch of water takes up: share of it under a brush with one wash of film. */
const DISSOLVES = 0.12;

/** Water takes dust up, which floats then. @returns how much */
function dissolved(f32: Float32Array, at: number, wet: number): number {
  const off = f32[at] * Math.min(1, DISSOLVES * wet);
  f32[at] -= off;
  return off;
}

/** Rubs a share of what has settled loose. @returns what floats now */
function scrubbed(f32: Float32Array, { settled, under, floor }: Carried, cell: number, share: number): number {
  let loose = 0;
  for (const plane of [settled, under]) {
    const there = plane ? f32[plane + cell] : 0;
    if (there <= floor) continue;
    const off = share * (there - floor);
    f32[plane + cell] = there - off;
    loose += off;
  }
  return loose;
}
