import type { Tile } from '@/core/film/tile';
import { Wash } from '@/core/film/wash';
import { hypot, maths } from '@/core/maths/maths';
import type { Sample, Stamp } from '@/core/marks/path';
import { DustStroke, type DustPlanes } from './dustContact';
import { depthOf } from '@/core/marks/partContact';
import type { StrokeSetting } from '@/core/marks/stampedStroke';

/** What rubs dust about: how much it takes up, gives back and keeps, and how deep it reaches into the tooth. */
export interface RubForm {
  /** Shares in its own width of travel: of the loose dust that it takes up, of the dust on it that it gives back. */
  readonly takes: number;
  readonly gives: number;
  /** Share of what it takes up that is wiped off and gone. */
  readonly loses: number;
  /** How deep it reaches, share of the depth of the tooth. */
  readonly reach: number;
}

export const RUBS = {
  finger: { takes: 0.95, gives: 0.5, loses: 0, reach: 1.1 },
  stump: { takes: 0.9, gives: 0.6, loses: 0, reach: 0.9 },
  'blender-soft': { takes: 0.4, gives: 0.6, loses: 0.12, reach: 0.7 },
  'blender-bristle': { takes: 0.6, gives: 0.6, loses: 0.1, reach: 0.8 },
  rag: { takes: 0.8, gives: 0.25, loses: 0.4, reach: 0.6 },
} as const satisfies Record<string, RubForm>;
/** What a stick rubs while it is drawn, by how far it only moves what it finds, 0..1. */
export const rubbing = (blend: number): RubForm => ({ ...RUBS.finger, takes: RUBS.finger.takes * blend, reach: 0.7 });

export type RubName = keyof typeof RUBS;
export const isRub = (tool: string): tool is RubName => tool in RUBS;

/** Sum of its weights over a whole touch, in squares of its radius. */
const WHOLE = 1.224;
/** Share of pressed dust that comes along, against loose dust. */
const PRESSED = 0.3;

/** A finger, a stump, a dry brush or a cloth drawn through dust: it takes it along, and presses it into the valleys. */
export class SmudgeStroke extends DustStroke {
  /** Dust on the tool: coats times cells. */
  private readonly carried = new Map<number, number>();

  constructor(
    setting: StrokeSetting,
    private readonly form: RubForm,
  ) {
    super(setting);
  }

  protected spacing(point: Sample): number {
    return Math.max(0.12, this.radius(point.pressure) * 0.2);
  }

  private radius(pressure: number): number {
    return (this.setting.settings.sizeMm / 2) * (0.7 + 0.3 * pressure);
  }

  protected stamp({ point, wayMm }: Stamp): void {
    const { painting, settings } = this.setting;
    const { arena, mmPerPx } = painting;
    const { form, carried } = this;
    const radius = this.radius(point.pressure);
    const press = point.pressure * settings.strength;
    const travelled = wayMm / Math.max(0.3, 2 * radius);
    const takes = 1 - maths.exp(-6 * form.takes * press * travelled);
    const gives = 1 - maths.exp(-5 * form.gives * travelled);
    // skin and paper give: it reaches most of the tooth, the peaks first
    const deep = 3 + 2 * this.tooth.deepUm;
    const lowest = deep * (0.5 - form.reach * (0.5 + 0.7 * point.pressure));
    let dust: DustPlanes[] = [];
    const f = (px: number, py: number) => {
      const q = hypot((px + 0.5) * mmPerPx - point.x, (py + 0.5) * mmPerPx - point.y) / radius;
      return q < 1 ? (1 - q * q) * Math.min(1, 2 * (1 - q)) : 0;
    };
    // first what is taken up and how much room there is, then what is put down: no order of cells shows
    const room: { tile: Tile; cell: number; weight: number }[] = [];
    let all = 0;
    let touched = 0;
    let tileNow: Tile | undefined;
    this.area(
      point.x,
      point.y,
      radius,
      (tile) => {
        tileNow = tile;
        if (carried.size > 0) tile.wash ??= new Wash(arena);
        const found = this.dustOf(tile);
        dust = found ?? [];
        return found !== undefined || carried.size > 0;
      },
      (cell, px, py) => {
        const weight = f(px, py);
        if (weight <= 0) return;
        touched += weight;
        const { f32 } = arena;
        const height = this.heightOf(dust, cell, px, py);
        const reached = depthOf(height - lowest, 0.8 * deep);
        const meets = 0.25 + (0.75 * reached) / (reached + 0.5 * deep);
        for (const { pigment, loose, pressed } of dust) {
          const off = f32[loose + cell] * takes * weight * meets;
          let sum = off;
          f32[loose + cell] -= off;
          if (pressed) {
            const deeper = f32[pressed + cell] * takes * weight * meets * PRESSED;
            f32[pressed + cell] -= deeper;
            sum += deeper;
          }
          if (sum > 0) carried.set(pigment, (carried.get(pigment) ?? 0) + sum);
        }
        // valleys take most: what is rubbed fills the tooth
        const share = weight * Math.max(0.4, Math.min(1.4, 0.85 - (0.3 * height) / deep));
        room.push({ tile: tileNow!, cell, weight: share });
        all += share;
      },
    );
    if (carried.size === 0 || all === 0) return;
    // over the sheet's edge it gives nothing
    const given = gives * Math.min(1, touched / (WHOLE * (radius / mmPerPx) ** 2));
    const { ledger, cellArea } = painting;
    const down = [...carried].sort((a, b) => a[0] - b[0]);
    // planes first: making one may move the others
    const tiles = [...new Set(room.map((r) => r.tile))];
    for (const { wash } of tiles) for (const [pigment] of down) wash!.plane('loose', pigment);
    for (const [pigment, amount] of down) {
      const lost = amount * given * form.loses;
      ledger.removed[pigment] += lost * cellArea;
      const put = (amount * given - lost) / all;
      let laid = 0;
      const planes = new Map(tiles.map((t) => [t, t.wash!.plane('loose', pigment) >> 2]));
      for (const { tile, cell, weight } of room) {
        arena.f32[planes.get(tile)! + cell] += put * weight;
        laid += put * weight;
      }
      const rest = amount - lost - laid;
      if (rest > 1e-9) carried.set(pigment, rest);
      else {
        ledger.removed[pigment] += Math.max(0, rest) * cellArea;
        carried.delete(pigment);
      }
    }
  }

  override end(): void {
    super.end();
    // it is wiped before the next stroke
    const { ledger, cellArea } = this.setting.painting;
    for (const [pigment, amount] of this.carried) ledger.removed[pigment] += amount * cellArea;
    this.carried.clear();
  }
}
