'use client';
import { create } from 'zustand';
import type { Triple } from '@/core/colour/colorimetry';
import type { Recipe } from '@/core/mixing/recipe';
import { onPaletteChange, usePalette } from '../colour/paletteStore';
import { masstoneLab, type Mixture } from '@/core/colour/mixture';
import type { PaintingSpec } from '@/core/film/painting';
import type { Command } from '@/core/commands/commands';
import { toolOf, type ToolId } from '@/core/tools/tools';
import { STUDIO_LIGHT, type Light } from '@/core/picture/picture';
import type { SpotReading } from '@/core/picture/readings';
import { aidOf, type Aid } from '@/core/picture/aids/aids';
import { OPEN_EYES, type Looking } from '@/core/picture/aids/definition';
import type { View } from '@/core/picture/view';
import type { EngineClient, Told } from '@/engine/client';
import type { BenchState, FromWorker } from '@/engine/protocol';
import type { PaperState } from '@/engine/questions';
import { isDrawingPaper } from '@/core/surface/drawingPaper';
import { isPaper } from '@/core/surface/paper';
import { amendPainting } from '@/engine/keeping/shelf';
import { useLikings } from '@/room/likings';
import { NO_COLOURS, stepped, taken, type RecentColours } from '@/room/colour/recentColours';
import { askFor, askNothing, withAsked } from '@/room/easel/hand/askedTool';
import { useJar } from '@/room/easel/hand/jarStore';
import { Session, type Painter } from './session';
import { fitView } from '@/room/easel/canvas/viewControl';

/** Id of the feature whose drawer is open. */
export type Drawer = string | null;
/** What can be laid over the lower part of the view, to choose from. */
export type Panel = 'roll' | 'rack' | 'leaf' | 'pots' | 'desk' | 'study' | 'send' | 'made' | 'sticks' | 'keys' | null;

/** A colour that was sampled on a photo, and what the tubes at hand make of it. */
export interface PhotoSample {
  readonly lab: Triple;
  readonly recipe: Recipe;
}
type Frame = Extract<FromWorker, { say: 'pixels' }>;
export type SlabFrame = Extract<FromWorker, { say: 'slab-pixels' }>;

interface EaselState {
  engine: EngineClient | undefined;
  opened:
    { spec: PaintingSpec; width: number; height: number; slab: { widthMm: number; heightMm: number } } | undefined;
  /** What went so wrong that the painting cannot be shown. */
  failed: string;
  bench: BenchState | undefined;
  /** Who paints on it: this tab, or another. */
  painter: Painter;
  /** When everything was last stored; how many strokes are not yet; why, where the storage refuses. */
  keptAt: number;
  waiting: number;
  notKept: string;
  /** How far it is with what is painted again, on opening or to go far back. */
  progress: Extract<FromWorker, { say: 'progress' }> | undefined;
  /** Something to know about the painting, until it has been read. */
  told: string;
  /** What could not be done, said where the painter looks: under the sill. */
  refused: string;
  view: View;
  /** How canvas and photo are looked at. */
  aid: Aid;
  how: Looking;
  light: Light;
  drawer: Drawer;
  panel: Panel;
  clear: boolean;
  /** Parts of the mixture that is set out: the colour in hand. */
  parts: Record<string, number>;
  /** The colours that were in hand before it, and whether it has been on a tool yet. */
  recent: RecentColours;
  inUse: boolean;
  sampling: boolean;
  sample: SpotReading | undefined;
  photoSample: PhotoSample | undefined;
  /** Radius of the spot that is sampled and compared, CSS pixels on the screen. */
  spotPx: number;
  /** Sampling gives the mixture that lies there, or a recipe for the colour seen through what lies over it. */
  asSeen: boolean;
  /** Sampling looks at all layers, or at the one that is painted on. */
  oneLayer: boolean;
  /** The last tool in hand that carries paint: what a colour is taken with while one is held that does not. */
  carrier: ToolId | undefined;
  /** The painting on the easel, and how wet its paper is under the hand. */
  painting: string;
  paper: PaperState | undefined;
  /** Median time from pen to picture over the last frames, ms. */
  latency: number;

  begin: (painting: string) => () => void;
  /** Asks the tab that paints to let go. */
  takeOver: () => void;
  onFrame: (sink: ((frame: Frame) => void) | undefined) => void;
  onSlabFrame: (sink: ((frame: SlabFrame) => void) | undefined) => void;
  /** @param passing whether it is for as long as something is held: the jar does not remember it */
  apply: (command: Command, passing?: 'passing') => void;
  look: (view: View) => void;
  toggleAid: (aid: Exclude<Aid, 'none'>) => void;
  /** Says how aids are set: half closed eyes, how many masses. */
  setHow: (how: Partial<Looking>) => void;
  toggleRaking: () => void;
  setLight: (light: Light) => void;
  /** Sets a mixture out and brings a clean brush full of it. */
  loadMixture: (parts: Record<string, number>) => void;
  /** The same with a second colour on the brush's right side, over a share of its width. */
  loadTwo: (tube: string, share: number) => void;
  setParts: (parts: Record<string, number>) => void;
  /** Takes the colour that was in hand before, or the one after it. */
  stepColour: (by: 1 | -1) => void;
  reload: () => void;
  /** How fast the clock of wet paper goes, 0 = held; kept with the painting. */
  setClock: (pace: number) => void;
  /** Lays a panel over the view, or takes it away when it lies there. */
  togglePanel: (panel: Exclude<Panel, null>) => void;
  set: (changes: Partial<EaselState>) => void;
}

let sink: ((frame: Frame) => void) | undefined;
let session: Session | undefined;
let slabSink: ((frame: SlabFrame) => void) | undefined;

/** Views that were asked for and not drawn yet, by the serial that their frames will carry. */
export const askedViews = new Map<number, View>();

/** A lamp that rakes over the canvas. */
export const RAKING = { elevation: 14, room: 0.15 };
export const isRaking = (light: Light) => light.elevation === RAKING.elevation && light.room === RAKING.room;
const plain = ({ elevation, room }: Light) => ({ elevation, room });

/** Parts without what is not there. */
export const mixtureOf = (parts: Record<string, number>): Mixture =>
  Object.fromEntries(Object.entries(parts).filter(([, n]) => n > 0));

/** Squeezes out in a row what was set out at the desk, once both the painting and its tubes are there. */
export function setOutWaiting(): void {
  const { opened, apply } = useEasel.getState();
  const { waiting, painting, bring, setOut } = usePalette.getState();
  if (!opened || !painting || waiting.length === 0) return;
  setOut([]);
  const step = opened.slab.widthMm / (waiting.length + 0.5);
  waiting.forEach((mixture, i) => {
    bring(mixture);
    const at: [number, number] = [Math.round(step * (i + 0.75) * 10) / 10, opened.slab.heightMm * 0.2];
    apply({ do: 'slab.squeeze', mixture, at, sizeMm: Math.min(14, step * 0.9), vehicle: 'oil' });
  });
}

export const useEasel = create<EaselState>((set, get) => ({
  engine: undefined,
  opened: undefined,
  failed: '',
  bench: undefined,
  painter: 'opening',
  keptAt: 0,
  waiting: 0,
  notKept: '',
  progress: undefined,
  told: '',
  refused: '',
  view: { width: 0, height: 0, centreX: 0, centreY: 0, zoom: 1, turn: 0, mirror: false },
  aid: 'none',
  how: OPEN_EYES,
  light: STUDIO_LIGHT,
  drawer: null,
  panel: null,
  clear: false,
  parts: { PB29: 1, PW6: 3 },
  recent: NO_COLOURS,
  inUse: false,
  sampling: false,
  sample: undefined,
  photoSample: undefined,
  spotPx: 4,
  asSeen: false,
  oneLayer: false,
  carrier: undefined,
  painting: '',
  paper: undefined,
  latency: 0,

  begin(painting) {
    const told = (message: Told) => {
      switch (message.say) {
        case 'opened': {
          const { width, height, spec, slab } = message;
          const { view } = get();
          set({ opened: { width, height, spec, slab } });
          if (view.width > 0) get().look(fitView(view, width, height));
          setOutWaiting();
          return;
        }
        case 'bench':
          set({
            bench: withAsked(message.bench),
            ...(carriesPaint(message.bench.tool.tool) && { carrier: message.bench.tool.tool }),
          });
          // what is worked out from the whole picture is worked out again
          if (aidOf(get().aid)?.prepare) get().look(get().view);
          return;
        case 'pixels':
          sink?.(message);
          return;
        case 'slab-pixels':
          slabSink?.(message);
          return;
        case 'kept':
          set({ notKept: '', ...(get().waiting === 0 && { keptAt: message.at }) });
          return;
        case 'not-kept':
          set({ notKept: message.why });
          return;
        case 'progress':
          set({ progress: message.done < message.total ? message : undefined });
          return;
        case 'told':
          set({ told: [get().told, message.what].filter(Boolean).join(' ') });
          return;
        case 'refused':
          if (message.fault) reportError(new Error(message.fault));
          askNothing();
          set({ refused: message.why });
          return;
        case 'failed':
          set({ failed: message.why });
      }
    };
    set({ painting, carrier: undefined, paper: undefined, failed: '', told: '', sample: undefined });
    session = new Session(painting, {
      told,
      kept: ({ waiting, storedAt }) => set({ waiting, ...(waiting === 0 && storedAt > 0 && { keptAt: storedAt }) }),
      painter: (painter) => set({ painter }),
      begun: (engine) => {
        askNothing();
        set({
          engine,
          opened: undefined,
          bench: undefined,
          painter: 'opening',
          keptAt: 0,
          waiting: 0,
          notKept: '',
          progress: undefined,
          refused: '',
          inUse: false,
        });
      },
    });
    const begun = session;
    void usePalette
      .getState()
      .open(painting)
      .then(() => {
        const { parts } = usePalette.getState();
        if (parts) set({ parts: { ...parts } });
        // a rule that was not known yet may say that it is not looked at from so near
        if (get().opened) get().look(get().view);
        setOutWaiting();
      });
    const stop = onPaletteChange(({ rules, paint }) => {
      if (paint) get().engine?.bringPaint(paint);
      // a rule can say that it is not looked at from so near
      if (rules) get().look(get().view);
    });
    return () => {
      stop();
      begun.close();
      set({ engine: undefined, opened: undefined });
    };
  },
  takeOver() {
    session?.askFor();
  },
  onFrame(next) {
    sink = next;
  },
  onSlabFrame(next) {
    slabSink = next;
  },
  apply(command, passing) {
    set({ refused: '' });
    get().engine?.apply(command);
    if (command.do !== 'tool') return;
    if (!passing) useJar.getState().remember(command);
    askFor(command);
    const { bench } = get();
    if (bench) set({ bench: withAsked(bench) });
  },
  look(from) {
    const { nearest = Infinity } = usePalette.getState().rules;
    const view = from.zoom > nearest ? { ...from, zoom: nearest } : from;
    set({ view });
    const serial = get().engine?.look(view, get().aid, get().how);
    if (serial !== undefined) askedViews.set(serial, view);
  },
  setHow(how) {
    set({ how: { ...get().how, ...how } });
    get().look(get().view);
  },
  toggleAid(aid) {
    set({ aid: get().aid === aid ? 'none' : aid });
    get().look(get().view);
  },
  toggleRaking() {
    const { light, setLight } = get();
    setLight(isRaking(light) ? { ...light, ...plain(STUDIO_LIGHT) } : { ...light, ...RAKING });
  },
  setLight(light) {
    set({ light });
    get().engine?.light(light);
  },
  loadTwo(tube, share) {
    const { parts, apply, loadMixture } = get();
    const mixture = mixtureOf(parts);
    if (Object.keys(mixture).length === 0) return;
    loadMixture(parts);
    usePalette.getState().bring({ [tube]: 1 });
    const tool = get().bench?.tool.tool;
    // one colour at a time goes into a belly, a stick or a pen
    if (tool && toolOf(tool).holds !== 'reservoir') return;
    apply({ do: 'rinse' });
    apply({ do: 'load', mixture, amount: 1, edge: { mixture: { [tube]: 1 }, share } });
  },
  loadMixture(parts) {
    get().setParts(parts);
    const mixture = mixtureOf(parts);
    if (Object.keys(mixture).length === 0) return;
    set({ recent: taken(get().recent, parts), inUse: true });
    const { bench, apply } = get();
    const tool = bench?.tool.tool;
    usePalette.getState().bring(mixture);
    const onPaper = isPaper(get().opened?.spec.surface.kind ?? 'panel');
    const held = tool && toolOf(tool);
    const holds = tool !== undefined && carriesPaint(tool);
    const onTooth = isDrawingPaper(get().opened?.spec.surface.kind ?? 'panel');
    const before = get().carrier;
    if (!holds) apply({ do: 'tool', tool: before ?? (onPaper ? 'wash-round' : onTooth ? 'pastel-soft' : 'flat') });
    // a watercolour brush is rinsed as it takes another wash; a pen is only dipped
    const inHand = holds ? held : before && toolOf(before);
    const wet = inHand ? inHand.forWater || inHand.stick : onPaper || onTooth;
    if (!wet) apply({ do: 'rinse' });
    apply({ do: 'load', mixture, amount: 1 });
  },
  setParts(parts) {
    set({ parts });
    usePalette.getState().keepParts(parts);
  },
  stepColour(by) {
    const before = get().recent;
    const recent = stepped(before, by);
    if (recent.at === before.at) return;
    set({ recent });
    get().loadMixture({ ...recent.all[recent.at] });
  },
  reload() {
    const { parts, bench, apply, loadMixture } = get();
    const mixture = mixtureOf(parts);
    if (Object.keys(mixture).length === 0) return;
    const carried = bench?.mixture ?? {};
    const other = Object.keys(carried).length > 0 && labFar(carried, mixture);
    if (other) loadMixture(parts);
    else {
      usePalette.getState().bring(mixture);
      apply({ do: 'load', mixture, amount: 1 });
    }
  },
  setClock(pace) {
    get().engine?.clock(pace);
    void amendPainting(get().painting, { clock: pace }).catch(() => {});
  },
  togglePanel(panel) {
    set({ panel: get().panel === panel ? null : panel });
  },
  set(changes) {
    set(changes);
  },
}));

/** Whether a tool is loaded with paint and lays it. */
function carriesPaint(tool: ToolId): boolean {
  const { takesPaint, blender, thirsty } = toolOf(tool);
  return takesPaint === true && !blender && !thirsty;
}

/** The tool that has been taken in hand is loaded with the colour in hand, where it carries paint and the painter likes that. */
export function followColour(): void {
  const { bench, parts, inUse, loadMixture } = useEasel.getState();
  if (!inUse || !bench || useLikings.getState().ownPaint) return;
  // a stick or a pen has a colour of its own until another is chosen for it
  if (carriesPaint(bench.tool.tool) && toolOf(bench.tool.tool).holds !== 'made') loadMixture(parts);
}

/** Whether two mixtures look like different paint on the brush. */
function labFar(a: Mixture, b: Mixture): boolean {
  const p = masstoneLab(a);
  const q = masstoneLab(b);
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) > 4;
}
