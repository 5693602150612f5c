import { Arena } from '@/core/film/arena';
import { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import { holdsFilm, holdsPixels } from '@/core/film/layerLook';
import { Ledger, type MassBalance } from '@/core/film/ledger';
import { Painting, type PaintingSpec } from '@/core/film/painting';
import { makeSlab, SLAB } from '@/core/film/slab';
import { growRect, noRect, type PixelRect } from '@/core/film/pixelRect';
import { driesIn, dryTile, sealTile } from '@/core/flow/drying';
import { Flow, flowOf } from '@/core/flow/flowing';
import type { Sample } from '@/core/marks/path';
import type { StrokeInProgress } from '@/core/marks/stampedStroke';
import { draws, isWash, kindOf } from '@/core/marks/tools';
import { isColoured, pigmentId, TABLE_COUNT } from '@/core/colour/pigments';
import { noChange, tileRect, wholeRect, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';
import { STEP_SECONDS } from '@/core/flow/washRates';
import { bringDrawing, recolourLines, settleDust } from './dustWork';
import { changesPainting } from './history';
import { onOtherCanvas } from './canvasWork';
import { fillArea, newBase } from './fillWork';
import { bringPicture, copyAll, duplicate, mergeDown } from './joinWork';
import { allChanged, changeLayers } from './layerWork';
import { changeMask } from './maskWork';
import { select } from './selectWork';
import { layTone } from './toneWork';
import { stampPiece, transform } from './transformWork';
import { mist } from '@/core/flow/mist';
import { retube } from './retubeWork';
import { silhouette } from './shapeWork';
import { scrapeSlab, squeezeOnSlab } from './slabWork';
import { momentBytes, momentOn, type Moment, type Structure, type Undone } from './moment';
import { lightStrokeFor, strokeFor } from './strokeFor';
import { Toolbox } from './toolbox';

/** @throws PainterError when a layer is hidden or locked */
function shown(layer: Layer): Layer {
  if (!layer.visible) throw new PainterError(`"${layer.name}" is hidden: show it before painting on it.`);
  if (layer.look.locked) throw new PainterError(`"${layer.name}" is locked: unlock it before painting on it.`);
  return layer;
}

const NOT_WHOLE = 'What was done before cannot be taken back: strokes of it are missing in what was kept.';
/** Most readings of a stroke, as the journal's schema has it. */
const MOST_SAMPLES = 200_000;
/** How far beside the painting a reading counts as it is, beyond twice its size, mm. */
export const FAR_MM = 200;
const clamp = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));
const isReading = (v: number): boolean => v >= -1e6 && v <= 1e6;

type StrokeCommand = Extract<Command, { do: 'stroke' }>;
/** What is said of a stroke beside its readings. */
type StrokeTold = Pick<StrokeCommand, 'on' | 'pace'>;

/**
 * The one place where a painting changes. Commands go in, the state changes, and what changed comes out.
 *
 * Undo goes back to before the last command that changed the painting, with the tools as they were then, so that the
 * same stroke can be tried again. Of every change the tiles before are kept; when that takes more memory than the
 * budget, the oldest are dropped, and going back that far replays the timeline instead: slower, the same bytes.
 */
export class Studio {
  private canvas: Painting;
  /** The stone to mix on: a small painting beside the painting, with the same tools and the same book of paint. */
  readonly slab: Painting;
  readonly tools: Toolbox;
  /** Simulated seconds that have passed. */
  clock = 0;
  /** Strokes made so far; each has randomness of its own. */
  strokes = 0;
  private timeline: Command[] = [];
  /** Whether the timeline leads from the empty ground to the state; if not, so many commands of it cannot be taken back. */
  private whole = true;
  private floor = 0;
  private past: Moment[] = [];
  /** Bytes of the moments of the past, as they were counted last. */
  private readonly bytesKept = new WeakMap<Moment, number>();
  private future: Undone[] = [];
  private pending: Moment | undefined;
  /** The place in the history before which steps will be put back, and tiles that time has changed since. */
  private awaited: ({ readonly at: number } & Pick<Moment, 'tiles'>) | undefined;
  private inAir:
    | { stroke: StrokeInProgress; samples: number[][]; rect: PixelRect; told: StrokeTold; guard: Guard | undefined }
    | undefined;
  /** Tiles in which water has moved since they were last taken; since the stroke in the air began. */
  private flowed = new Set<number>();
  private flowedInStroke = new Set<number>();
  /** Steps that water has flowed by the clock and that are not yet written down as a wait. */
  private waited = 0;

  constructor(
    private readonly begunAs: PaintingSpec,
    private readonly historyBytes = 600e6,
    arena = new Arena(),
  ) {
    this.canvas = new Painting(begunAs, arena);
    this.slab = makeSlab(this.painting);
    this.tools = new Toolbox(this.painting);
  }

  /** The painting as it is now: another object once its canvas was cut, turned or extended. */
  get painting(): Painting {
    return this.canvas;
  }

  /** Puts another canvas on the easel. */
  private setCanvas(painting: Painting): void {
    // an undo that brings it back works out anew what it needs
    if (painting !== this.canvas) this.canvas.disposeDerived();
    this.canvas = painting;
    this.tools.moveTo(painting);
  }

  /** Takes over a canvas that is laid out in another way, as a snapshot tells it; it is empty. */
  layOut(spec: PaintingSpec): void {
    this.setCanvas(new Painting(spec, this.painting.arena, this.painting.ledger));
  }

  /** Gives all memory back: the painting is put away, and nothing more can be done with it. */
  dispose(): void {
    this.abandonStroke();
    for (const layer of this.allLayers) this.painting.disposeLayer(layer);
    this.painting.disposeDerived();
    this.slab.disposeDerived();
    this.tools.dispose();
    this.past = [];
    this.future = [];
  }

  /** What the painting was begun with, and the own paints that came to it: where its journal starts. */
  get begun(): PaintingSpec {
    const { paints } = this.painting.spec;
    return paints ? { ...this.begunAs, paints } : this.begunAs;
  }

  /**
   * Applies a command.
   * @throws PainterError when it cannot be done; the painting is then unchanged.
   */
  apply(command: Command): Change {
    if (this.inAir) throw new PainterError('A stroke is still being made.');
    this.needNoWait();
    switch (command.do) {
      case 'stroke': {
        this.beginStroke(command.on, command.pace);
        for (const s of command.samples) this.addSample(s);
        return this.endStroke(command)?.change ?? noChange();
      }
      case 'undo':
        return this.undo();
      case 'redo':
        return this.redo();
      default: {
        const undoable = changesPainting(command);
        if (undoable) this.open();
        let change: Change;
        try {
          change = this.perform(command);
        } catch (error) {
          this.giveUp();
          throw error;
        }
        this.commit(command);
        return change;
      }
    }
  }

  /**
   * Puts the tool down, on the painting or on the slab.
   * @param pace how fast water flows by the times of the readings
   * @throws PainterError when the layer (or the slab) and the tool do not go together.
   */
  beginStroke(on?: typeof SLAB, pace?: number): void {
    if (this.inAir) throw new PainterError('A stroke is still being made.');
    this.needNoWait();
    const painting = on ? this.slab : this.painting;
    const onLight = !on && (painting.part === 'mask' || !holdsFilm(painting.active.kind));
    const layer = on ? this.slabForTool() : onLight ? this.layerForLight() : this.layerForTool();
    const guard = on ? undefined : Guard.of(painting, layer);
    const before = this.open();
    this.flowedInStroke = new Set();
    const keep = (l: Layer, index: number) => {
      before(l, index);
      if (!on && l.basin) this.flowedInStroke.add(index);
    };
    const seed = (Math.imul(painting.spec.seed, 7907) + Math.imul(this.strokes + 1, 104729)) >>> 1;
    let stroke: StrokeInProgress;
    try {
      // on the slab a brush takes up what it finds
      if (!on && !onLight) this.tools.reloadByItself();
      const settings = this.tools.current;
      const setting = { painting, layer, settings, seed, before: guard?.wrap(keep) ?? keep, pace: pace ?? 1, guard };
      stroke = onLight ? lightStrokeFor(this.tools, setting, painting.part) : strokeFor(this.tools, setting);
    } catch (error) {
      this.giveUp();
      throw error;
    }
    this.strokes++;
    this.inAir = {
      stroke,
      samples: [],
      rect: noRect(),
      guard: onLight ? undefined : guard,
      told: { ...(on && { on }), ...(pace !== undefined && { pace }) },
    };
  }

  /**
   * Adds a reading of the pen to the stroke in the air: [t, x, y, pressure, tiltX, tiltY, twist]. One that no journal
   * could tell (a number that is none, more readings than a stroke may have) is left out.
   */
  addSample(sample: readonly number[]): void {
    if (!sample.every(isReading) || this.inAir!.samples.length >= MOST_SAMPLES) return;
    const [t, x, y, pressure, tiltX = 0, tiltY = 0, twist = 0] = sample;
    const place = this.nearby(x, y);
    const read: Sample = { t, ...place, pressure: Math.min(1, Math.max(0, pressure)), tiltX, tiltY, twist };
    this.inAir!.samples.push([...sample]);
    this.inAir!.stroke.add(read);
  }

  /** A place no farther from what is painted on than a hand with a long arm: the way there and back costs time. */
  private nearby(x: number, y: number): { x: number; y: number } {
    const { widthMm, heightMm } = (this.inAir!.told.on ? this.slab : this.painting).spec;
    const far = FAR_MM + 2 * Math.max(widthMm, heightMm);
    return { x: clamp(x, -far, widthMm + far), y: clamp(y, -far, heightMm + far) };
  }

  /** Brings the stroke in the air into the tiles. @returns the cells that changed since the last call. */
  publishStroke(): PixelRect {
    const rect = this.inAir!.stroke.publish();
    growRect(this.inAir!.rect, rect);
    this.flowedInStroke.forEach((index) => this.flowed.add(index));
    return rect;
  }

  /** Tiles in which water has moved since this was last asked. */
  takeFlowed(): ReadonlySet<number> {
    const { flowed } = this;
    this.flowed = new Set();
    return flowed;
  }

  /** Lets water flow by the clock for some steps, as a wait that is not over yet. */
  advance(steps: number): void {
    this.flow(steps, this.flowed);
    this.waited += steps;
  }

  /** Ends the wait that `advance` began. @returns it as a command; undefined when no time has passed */
  endWait(): { command: Command; change: Change } | undefined {
    if (this.waited === 0) return undefined;
    const seconds = Math.round(this.waited * STEP_SECONDS * 100) / 100;
    this.waited = 0;
    const change = this.age(seconds);
    const command: Command = { do: 'wait', seconds };
    this.commit(command);
    return { command, change };
  }

  private needNoWait(): void {
    if (this.waited > 0) throw new Error('A wait is not over yet.');
  }

  /**
   * Lifts the tool.
   * @param as the command that the stroke was read from, which then stands in the history itself
   * @returns the stroke as a command, what it changed in all, and the cells that look otherwise than they were
   *   published; undefined when there was no reading: then nothing has happened
   */
  endStroke(as?: StrokeCommand): { command: StrokeCommand; change: Change; unshown: PixelRect } | undefined {
    const { stroke, samples, rect, told, guard } = this.inAir!;
    if (samples.length === 0) {
      stroke.end();
      this.inAir = undefined;
      this.giveUp();
      return undefined;
    }
    stroke.end();
    guard?.settle();
    const last = stroke.publish();
    growRect(rect, last);
    this.inAir = undefined;
    for (const layer of this.allLayers) layer.forEachTile((tile) => tile.dropLaid());
    const command: StrokeCommand = as ?? { do: 'stroke', samples, ...told };
    this.commit(command);
    return {
      command,
      change: told.on ? { ...noChange(), slab: rect } : { ...noChange(), rect, flowed: this.flowedInStroke },
      unshown: told.on ? noRect() : stroke.staysAsShown && !guard ? last : rect,
    };
  }

  /** Whether time passes in strokes of the tool in hand, as their readings tell it. */
  get strokesTakeTime(): boolean {
    return isWash(this.tools.inHand) || (this.tools.inHand === 'rag' && this.painting.active.basin !== undefined);
  }
  get strokeInAir(): boolean {
    return this.inAir !== undefined;
  }
  /** Whether the stroke in the air is on the slab. */
  get strokeOnSlab(): boolean {
    return this.inAir?.told.on !== undefined;
  }
  /** Layers of the painting, the slab's, and the selection. */
  get allLayers(): readonly Layer[] {
    return [...this.painting.layers, ...this.slab.layers, this.painting.selection];
  }
  /** A layer of the painting or the slab by its id. */
  layer(id: string): Layer | undefined {
    return this.allLayers.find((l) => l.id === id);
  }
  get spec(): PaintingSpec {
    return this.painting.spec;
  }
  get canUndo(): boolean {
    for (let i = this.timeline.length - 1; i >= this.floor; i--) if (changesPainting(this.timeline[i])) return true;
    return false;
  }
  get canRedo(): boolean {
    return this.future.length > 0;
  }

  /** Whether there is paint that dries in minutes. */
  get driesByTheClock(): boolean {
    return this.painting.layers.some(
      (layer) => layer.kind === 'paint' && layer.tiles.some((tile) => tile && driesIn(tile, 0)),
    );
  }

  /** The commands that lead from the empty ground to the present state, undone ones left out. */
  get history(): readonly Command[] {
    return this.timeline;
  }

  /**
   * Takes over a history whose result the state already is (after a snapshot was put back).
   * @param whole false when something is missing in it: then it cannot be taken back, for it does not lead to the state
   */
  adoptHistory(commands: readonly Command[], whole = true): void {
    this.timeline = [...commands];
    this.whole = whole;
    this.floor = whole ? 0 : commands.length;
    this.past = [];
    this.future = [];
    this.awaited = undefined;
  }

  /** The history up to the first step that can be taken back at once; empty when there is nothing to take back before it. */
  get beforeKept(): readonly Command[] {
    const before = this.timeline.slice(0, this.past[0]?.timeline ?? this.timeline.length);
    return before.slice(this.floor).some(changesPainting) ? before : [];
  }

  /**
   * Takes over what lay under the last steps from a studio that has come to this one's state, or to one on the way to it
   * behind which every step is kept here. Steps that have to do with layers that are not there any more are left.
   */
  adoptPast(other: Studio): void {
    const kept = this.past[0]?.timeline ?? this.timeline.length;
    if (kept !== other.timeline.length || other.timeline.some((command, i) => command !== this.timeline[i])) return;
    const moments: Moment[] = [];
    for (let i = other.past.length - 1; i >= 0; i--) {
      const moved = momentOn(other.past[i], other.painting, this.painting, (id) => this.layer(id));
      if (!moved) break;
      moments.unshift(moved);
    }
    this.past = [...moments, ...this.past];
  }

  /**
   * What is kept of the last steps, the latest last. It ends before a step that belongs to another canvas, or to a layer
   * that is not in the painting now.
   */
  pastKept(most: number): readonly Moment[] {
    const { past, painting } = this;
    const there = new Set(this.allLayers);
    const known = (moment: Moment) =>
      moment.structure.painting === painting &&
      moment.structure.layers.every(({ layer }) => there.has(layer)) &&
      [...moment.tiles.keys()].every((layer) => there.has(layer));
    const from = past.findLastIndex((moment) => !known(moment)) + 1;
    return past.slice(Math.max(from, past.length - most));
  }

  /**
   * The steps before the present state are kept somewhere, and will be put back one by one, the latest first: until
   * then, what time changes is kept for them.
   */
  awaitPast(): void {
    this.awaited = { at: this.timeline.length, tiles: new Map() };
  }

  /** Who was in the stack when steps began to be awaited; undefined when they are not, or would leave a gap. */
  get awaitedPast(): Structure | undefined {
    if (!this.awaited || this.inAir) return undefined;
    const [first] = this.past;
    const kept = first?.timeline ?? this.timeline.length;
    if (kept < this.awaited.at || this.timeline.slice(this.awaited.at, kept).some(changesPainting)) return undefined;
    return first?.structure ?? this.structure();
  }

  /**
   * Puts back what was kept of the step before.
   * @returns whether it is one: the step that leads to where the awaited ones end
   */
  putBackStep(moment: Moment): boolean {
    const { awaited } = this;
    const steps = awaited && this.timeline.slice(moment.timeline, awaited.at).filter(changesPainting).length;
    if (!awaited || steps !== 1 || !this.awaitedPast) return false;
    for (const [layer, tiles] of awaited.tiles) {
      moment.tiles.set(layer, new Map([...tiles, ...(moment.tiles.get(layer) ?? [])]));
    }
    this.past.unshift(moment);
    this.awaited = { at: moment.timeline, tiles: new Map() };
    return true;
  }

  /** No more steps will be put back. */
  awaitNoMore(): void {
    this.awaited = undefined;
  }

  /** What the next undo takes back; undefined when there is nothing. */
  private get nextUndo(): Undone | undefined {
    const at = this.timeline.findLastIndex(changesPainting);
    return at < this.floor ? undefined : { at, commands: this.timeline.slice(at) };
  }

  /** What was taken back and can be done again, the last first to come: the commands alone. */
  private get undone(): readonly Undone[] {
    return this.future.map(({ at, commands }) => ({ at, commands }));
  }

  /**
   * The history that an undo or a redo leads to when it is not kept at hand, and has to be painted again; and what can
   * be done again from there. Undefined when `apply` does it at once, or refuses it.
   */
  farWay(which: 'undo' | 'redo'): { target: readonly Command[]; undone: readonly Undone[] } | undefined {
    if (which === 'undo') {
      const next = this.past.length > 0 ? undefined : this.nextUndo;
      return next && { target: this.timeline.slice(0, next.at), undone: [...this.undone, next] };
    }
    const next = this.future.at(-1);
    if (!next || next.kept || this.timeline.length <= next.at) return undefined;
    return { target: [...this.timeline.slice(0, next.at), ...next.commands], undone: this.undone.slice(0, -1) };
  }

  /** Puts everything back that the stroke in the air has done: something is wrong with it. */
  abandonStroke(): void {
    if (!this.inAir) return;
    this.inAir = undefined;
    for (const layer of this.allLayers) layer.forEachTile((tile) => tile.dropLaid());
    this.giveUp();
  }

  /** Takes over what can be done again from a studio whose history this one's is. */
  adoptUndone(undone: readonly Undone[]): void {
    this.future = [...undone];
  }

  /** The balance of water, microlitres: loaded = canvas + tool + removed + evaporated. */
  waterBalance(): { loaded: number; canvas: number; tool: number; removed: number; evaporated: number } {
    return { ...this.painting.ledger.water, canvas: this.painting.waterOnCanvas(), tool: this.tools.water() };
  }

  /** The balance of every pigment that was ever loaded. */
  massBalance(): Record<string, MassBalance> {
    const { film, settled, strata } = this.painting.massOnCanvas();
    const tool = this.tools.mass();
    const slab = this.slab.massOnCanvas().film;
    const { loaded, removed, added } = this.painting.ledger;
    const balance: Record<string, MassBalance> = {};
    for (let i = 0; i < TABLE_COUNT; i++) {
      if ((!loaded[i] && !added[i]) || !isColoured(i)) continue;
      balance[pigmentId(i)] = {
        loaded: loaded[i],
        film: film[i],
        settled: settled[i],
        strata: strata[i],
        tool: tool[i],
        slab: slab[i],
        removed: removed[i],
        ...(added[i] && { added: added[i] }),
      };
    }
    return balance;
  }

  private perform(command: Exclude<Command, { do: 'stroke' | 'undo' | 'redo' }>): Change {
    const nothing = noChange();
    switch (command.do) {
      case 'tool':
        this.tools.take(command);
        return nothing;
      case 'load':
        this.tools.load(command);
        return nothing;
      case 'wipe':
        this.tools.clean(false);
        return nothing;
      case 'rinse':
        this.tools.clean(true, command.damp);
        return nothing;
      case 'wait':
        return this.pass(command.seconds);
      case 'leave':
        return this.pass(command.hours * 3600);
      case 'dry':
        return this.dry();
      case 'tilt':
        this.painting.flow.tilt = [command.x, command.y];
        return nothing;
      case 'mist': {
        const layer = this.paintable(this.painting.active);
        mist(this.painting, layer, command.amount, (l, i) => this.keepTile(l, i));
        return { ...nothing, rect: wholeRect(this.painting) };
      }
      case 'slab.squeeze':
        return squeezeOnSlab(this.workplace, command);
      case 'slab.take': {
        const slab = this.tools.takeUp(this.slab, ...command.at, (l, i) => this.keepTile(l, i));
        return { ...nothing, slab };
      }
      case 'slab.scrape':
        return scrapeSlab(this.workplace);
      case 'retube':
        return retube(this.workplace, command);
      case 'silhouette':
        return silhouette(this.workplace, command, this.tools.current, this.layerForTool());
      case 'tone':
        return layTone(this.workplace, command, this.tools.current, this.layerForTool());
      case 'fix':
      case 'blow':
        return settleDust(this.workplace, command);
      case 'layer.duplicate':
        return duplicate(this.workplace, command);
      case 'layer.merge':
        return mergeDown(this.workplace, command);
      case 'layer.copy-all':
        return copyAll(this.workplace, command);
      case 'layer.picture':
        return bringPicture(this.workplace, command);
      case 'layer.mask':
        return changeMask(this.workplace, command);
      case 'layer.base':
        return newBase(this.workplace, command);
      case 'select':
        return select(this.workplace, command);
      case 'transform':
        return transform(this.workplace, command);
      case 'stamp':
        return stampPiece(this.workplace, command);
      case 'fill':
        return fillArea(this.workplace, command, this.tools.current, this.paintable(this.painting.active));
      case 'canvas':
        this.setCanvas(onOtherCanvas(this.workplace, command, this.begun));
        return { ...allChanged(this.painting), canvas: true };
      case 'layer.recolour':
        return recolourLines(this.workplace, command);
      case 'layer.bring':
        return bringDrawing(this.workplace, command);
      default:
        return changeLayers(this.workplace, command);
    }
  }

  /** Time passes: water flows and dries, wet paint dries by what it is made of and how thick it lies. */
  private pass(seconds: number): Change {
    const flowed = new Set<number>();
    this.flow(Flow.steps(seconds), flowed);
    return { ...this.age(seconds), flowed };
  }

  /** Lets water flow for some steps, as far as there is any. */
  private flow(steps: number, flowed: Set<number>): void {
    if (!this.hasWater) return;
    const water = flowOf(this.painting);
    const keep = (layer: Layer, index: number) => {
      this.keepForAll(layer, index);
      flowed.add(index);
    };
    for (let i = 0; i < steps && water.active; i++) water.step(keep);
  }

  /** Tiles under a film of water. */
  get wetTiles(): number {
    return this.painting.layers.reduce((sum, layer) => sum + (layer.basin?.wetTiles ?? 0), 0);
  }

  /** Whether there is water on any layer. */
  get hasWater(): boolean {
    return this.painting.layers.some((layer) => layer.basin);
  }

  /** Oil and acrylic dry for some seconds. */
  private age(seconds: number): Change {
    const { painting } = this;
    this.clock += seconds;
    const rect = noRect();
    for (const layer of painting.layers) {
      if (layer.kind !== 'paint') continue;
      layer.forEachTile((tile, index) => {
        if (!driesIn(tile, seconds)) return;
        this.keepForAll(layer, index);
        dryTile(painting.arena, tile, seconds);
        growRect(rect, tileRect(painting, index));
      });
    }
    return { ...noChange(), rect };
  }

  private dry(): Change {
    const { painting } = this;
    const rect = noRect();
    const flowed = new Set<number>();
    if (this.hasWater) {
      flowOf(painting).dry((layer, index) => {
        this.keepTile(layer, index);
        flowed.add(index);
      });
    }
    for (const layer of painting.layers) {
      if (layer.kind !== 'paint') continue;
      layer.forEachTile((tile, index) => {
        if (!tile.volume) return;
        this.keepTile(layer, index);
        if (sealTile(painting.arena, tile)) growRect(rect, tileRect(painting, index));
      });
    }
    return { ...noChange(), rect, flowed };
  }

  /** The layer on which the tool in hand works. */
  private layerForTool(): Layer {
    const { painting } = this;
    const { active } = painting;
    const { tool, into } = this.tools.current;
    if (kindOf(tool) === 'stick' && into === 'sketch' && active.kind !== 'drawing') {
      const sketch = painting.layers.find((l) => l.kind === 'drawing' && l.visible);
      if (!sketch) throw new PainterError('There is no sketch to draw on: show one or add one in Layers.');
      return shown(sketch);
    }
    if (draws(tool)) {
      return shown(active);
    }
    return this.paintable(active);
  }

  /** The layer on which light, pixels or a mask are painted. @throws PainterError when there is nothing to paint on */
  private layerForLight(): Layer {
    const { active, part } = this.painting;
    if (part === 'layer' && !holdsPixels(active.kind)) {
      throw new PainterError(
        active.kind === 'group'
          ? `"${active.name}" is a group: choose one of its layers to paint on.`
          : `"${active.name}" is an adjustment: give it a mask to paint where it works.`,
      );
    }
    if (['salt', 'gel', 'keep-off', 'drops', 'splatter'].includes(kindOf(this.tools.inHand))) {
      throw new PainterError(
        `There is no paint on "${active.name}" for the ${this.tools.inHand}: take a brush or the spray.`,
      );
    }
    return shown(active);
  }

  /** @throws PainterError when a layer takes no paint now */
  private paintable(active: Layer): Layer {
    if (active.kind === 'drawing') {
      throw new PainterError(
        `"${active.name}" takes sticks and ink only: choose a paint layer for the ${this.tools.inHand}.`,
      );
    }
    return shown(active);
  }

  /** The slab, for the tool in hand. */
  private slabForTool(): Layer {
    const kind = kindOf(this.tools.inHand);
    if (kind !== 'brush' && kind !== 'knife') {
      throw new PainterError('That is no tool for the slab: mix with a brush or the knife.');
    }
    return this.slab.active;
  }

  /** What commands that are told elsewhere work on. */
  private get workplace(): Workplace {
    const { painting, slab } = this;
    return { painting, slab, keep: (layer, index) => this.keepTile(layer, index) };
  }

  // --- going back and forth

  /** Opens a change: from here on, tiles are kept before they are touched. */
  private open(): (layer: Layer, index: number) => void {
    this.pending = this.moment();
    return (layer, index) => this.keepTile(layer, index);
  }

  /** Back to where the change that cannot be made was begun. */
  private giveUp(): void {
    if (this.pending) this.goTo(this.pending, this.timeline);
    this.pending = undefined;
  }

  private moment(): Moment {
    return {
      tiles: new Map(),
      structure: this.structure(),
      ledger: this.painting.ledger.clone(),
      tools: this.tools.capture(),
      strokes: this.strokes,
      clock: this.clock,
      flow: { ...this.painting.flow },
      timeline: this.timeline.length,
    };
  }

  private keepTile(layer: Layer, index: number, moment: Pick<Moment, 'tiles'> = this.pending!): void {
    let kept = moment.tiles.get(layer);
    if (!kept) moment.tiles.set(layer, (kept = new Map()));
    if (kept.has(index)) return;
    kept.set(index, layer.capture(index, this.painting.arena));
  }

  /**
   * Keeps a tile before a change that is no step of its own, as when a clock ticks: whoever goes back to the last
   * step, or forward to the next, must find it as it was.
   */
  private keepForAll(layer: Layer, index: number): void {
    if (this.pending) {
      this.keepTile(layer, index);
      return;
    }
    for (const moment of [this.past.at(-1) ?? this.awaited, this.future.at(-1)?.kept?.base]) {
      if (moment) this.keepTile(layer, index, moment);
    }
  }

  private commit(command: Command): void {
    this.timeline.push(command);
    if (!this.pending) return;
    this.past.push(this.pending);
    this.pending = undefined;
    this.future = [];
    // only the newest two can have come to keep more: what the others keep was counted before
    const newest = this.past.length - 2;
    let bytes = 0;
    for (let i = this.past.length - 1; i >= 0; i--) {
      const moment = this.past[i];
      const counted = i >= newest ? momentBytes(moment) : (this.bytesKept.get(moment) ?? momentBytes(moment));
      this.bytesKept.set(moment, counted);
      bytes += counted;
      if (bytes > this.historyBytes) {
        this.past = this.past.slice(i + 1);
        break;
      }
    }
  }

  private undo(): Change {
    const moment = this.past.pop();
    if (!moment) return this.undoByReplay();
    const at = moment.timeline;
    const after = this.mirror(moment);
    this.future.push({ at, commands: this.timeline.slice(at), kept: { base: { ...moment, tiles: new Map() }, after } });
    return this.goTo(moment, this.timeline.slice(0, at));
  }

  private redo(): Change {
    const undone = this.future.at(-1);
    if (!undone) throw new PainterError('There is nothing to do again.');
    const { at, commands, kept } = undone;
    if (!kept && this.timeline.length > at && !this.whole) throw new PainterError(NOT_WHOLE);
    this.future.pop();
    // what was done to the tools since the undo is forgotten
    if (kept) {
      this.goTo(kept.base, this.timeline.slice(0, at));
      this.past.push(this.mirror(kept.after));
      return this.goTo(kept.after, [...this.timeline, ...commands]);
    }
    const { future } = this;
    if (this.timeline.length > at) this.rebuild(this.timeline.slice(0, at));
    for (const command of commands) this.apply(command);
    this.future = future;
    return { ...noChange(), rect: wholeRect(this.painting), slab: wholeRect(this.slab), layers: true };
  }

  /** The same tiles as another moment's, as they are now. */
  private mirror(other: Moment): Moment {
    const now = this.moment();
    if (other.structure.painting !== this.painting) {
      // on another canvas: everything on this one
      for (const layer of [...this.painting.layers, this.painting.selection]) {
        layer.forEachTile((_, index) => this.keepTile(layer, index, now));
      }
    }
    for (const [layer, tiles] of other.tiles) for (const index of tiles.keys()) this.keepTile(layer, index, now);
    return now;
  }

  private goTo(moment: Moment, timeline: Command[]): Change {
    const now = this.structure();
    const canvas = moment.structure.painting !== this.painting;
    if (canvas) {
      for (const layer of [...this.painting.layers, this.painting.selection]) this.painting.disposeLayer(layer);
      this.setCanvas(moment.structure.painting);
    }
    const { painting } = this;
    const rect = noRect();
    const slab = noRect();
    const layersDiffer =
      now.layers.length !== moment.structure.layers.length ||
      now.layers.some((l, i) => {
        const m = moment.structure.layers[i];
        return l.layer !== m.layer || l.look !== m.look;
      });
    painting.layers = moment.structure.layers.map(({ layer, look }) => {
      layer.look = look;
      return layer;
    });
    painting.choose(moment.structure.activeLayer, moment.structure.part);
    painting.layersMade = moment.structure.layersMade;
    for (const [layer, tiles] of moment.tiles) {
      for (const [index, image] of tiles) {
        layer.restore(index, image, painting.arena, () => painting.newBasin());
        if (layer.id === SLAB) growRect(slab, tileRect(this.slab, index));
        else growRect(rect, tileRect(painting, index));
      }
    }
    for (const layer of painting.layers) {
      if (layer.basin?.active) continue;
      layer.basin?.dispose();
      layer.basin = undefined;
    }
    if (layersDiffer || canvas) growRect(rect, wholeRect(this.painting));
    painting.order++;
    painting.ledger.copyFrom(moment.ledger);
    this.tools.restore(moment.tools);
    this.strokes = moment.strokes;
    this.clock = moment.clock;
    painting.flow = { ...moment.flow };
    this.timeline = timeline;
    return { ...noChange(), rect, slab, layers: true, ...(canvas && { canvas }) };
  }

  /** Goes back farther than tiles were kept: from the empty ground through everything but the last change. */
  private undoByReplay(): Change {
    const next = this.nextUndo;
    if (!next && this.whole) throw new PainterError('There is nothing to take back.');
    if (!next || !this.whole) throw new PainterError(NOT_WHOLE);
    // moments that were kept belong to layers that are now made anew
    const future = this.undone;
    this.rebuild(this.timeline.slice(0, next.at));
    this.future = [...future, next];
    return { ...noChange(), rect: wholeRect(this.painting), slab: wholeRect(this.slab), layers: true };
  }

  /** Paints everything anew from the empty ground. */
  private rebuild(commands: readonly Command[]): void {
    this.clear();
    for (const command of commands) this.apply(command);
  }

  /** Back to the empty ground. */
  private clear(): void {
    for (const layer of this.allLayers) this.painting.disposeLayer(layer);
    if (this.painting.spec.placed) this.layOut(this.begun);
    const { painting } = this;
    painting.layers = [];
    painting.layersMade = 0;
    painting.addLayer('drawing', 'Sketch');
    painting.choose(painting.addLayer('paint', 'Paint').id);
    painting.ledger.copyFrom(new Ledger());
    painting.flow = { steps: 0, tilt: [0, 0], salt: [] };
    this.tools.restore(new Toolbox(painting).capture());
    this.clock = 0;
    this.strokes = 0;
    this.timeline = [];
    this.past = [];
    this.future = [];
    this.awaited = undefined;
  }

  private structure(): Structure {
    const { layers, activeLayer, part, layersMade } = this.painting;
    const { painting } = this;
    return { painting, layers: layers.map((layer) => ({ layer, look: layer.look })), activeLayer, part, layersMade };
  }
}
