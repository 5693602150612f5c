'use client';
import { create } from 'zustand';
import { z } from '@/core/schema';
import { perspectiveLightSchema, type PerspectiveLight } from '@/core/study/light/castShadow';
import { lampColour } from '@/core/study/light/lampColour';
import { lightStudySchema, MOST_THINGS, type LightStudy, type StudyThing } from '@/core/study/light/lightStudy';
import type { CanvasSize, Place } from '@/core/study/register';
import type { LightSeen } from '@/engine/light/lightMessages';
import { amendPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';

export type BoardView = LightStudy['view'];
/** What the hand draws on a board; to pull, and to look for light from a place, are tools as well. */
export type BoardAct = 'pull' | 'lamp' | 'window' | 'wall' | 'round' | 'outline' | 'sight';
/** What it sets in perspective. */
export type PerspectiveSetting = 'light' | 'thing' | 'plane';

const keptSchema = z.object({
  mode: z.enum(['plan', 'section', 'perspective']),
  laid: z.enum(['beside', 'over']),
  look: z.enum(['shadow', 'light']),
  stays: z.boolean(),
  plan: lightStudySchema.optional().catch(undefined),
  section: lightStudySchema.optional().catch(undefined),
  perspective: perspectiveLightSchema.optional().catch(undefined),
});
type Kept = z.infer<typeof keptSchema>;

const AT_FIRST: Kept = { mode: 'plan', laid: 'beside', look: 'shadow', stays: false };
/** Width of a new board, mm: a room. */
const ROOM_MM = 6000;

export const DAYLIGHT = lampColour(6500);
export const LAMPLIGHT = lampColour(2900);
export const PLASTER: [number, number, number] = [0.62, 0.6, 0.55];

/** What a thing is before it has a number. */
export type NewThing = StudyThing extends infer T ? (T extends StudyThing ? Omit<T, 'id'> : never) : never;

interface LightState extends Kept {
  painting: string;
  canvas: CanvasSize;
  act: BoardAct | undefined;
  setting: PerspectiveSetting | undefined;
  chosen: number | undefined;
  /** Where light is looked from, mm of the board. */
  sight: Place | undefined;
  seen: LightSeen | undefined;

  open: (record: PaintingRecord) => void;
  set: (changes: Partial<Pick<LightState, 'act' | 'setting' | 'chosen' | 'sight' | 'seen'>>) => void;
  /** What is kept with the painting. */
  change: (changes: Partial<Kept>) => void;
  /** @param passing while a hand still pulls: not yet kept */
  setThing: (thing: StudyThing, passing?: 'passing') => void;
  /** @returns its number; undefined where the board is full */
  add: (thing: NewThing) => number | undefined;
  remove: (id: number) => void;
  setBoard: (changes: Partial<Pick<LightStudy, 'widthMm' | 'heightMm' | 'unit' | 'things'>>) => void;
}

export const emptyBoard = (view: BoardView, { widthMm, heightMm }: CanvasSize): LightStudy => ({
  view,
  widthMm: ROOM_MM,
  heightMm: Math.round((ROOM_MM * heightMm) / widthMm),
  unit: 'm',
  things: [],
});

/** A light before us on the left, the horizon a little over the middle. */
const perspectiveAtFirst = ({ widthMm: w, heightMm: h }: CanvasSize): PerspectiveLight => ({
  light: { is: 'lamp', at: { x: 0.2 * w, y: 0.15 * h }, foot: { x: 0.2 * w, y: 0.62 * h } },
  horizon: 0.45 * h,
  things: [],
});

export const useLight = create<LightState>((set, get) => {
  const keep = () => {
    const { painting, mode, laid, look, stays, plan, section, perspective } = get();
    const light = { mode, laid, look, stays, plan, section, perspective };
    if (painting) void amendPainting(painting, { light }).catch(() => {});
  };
  const setBoard: LightState['setBoard'] = (changes) => {
    const board = boardNow(get());
    set({ [board.view]: { ...board, ...changes } });
  };
  return {
    ...AT_FIRST,
    painting: '',
    canvas: { widthMm: 4, heightMm: 3 },
    act: undefined,
    setting: undefined,
    chosen: undefined,
    sight: undefined,
    seen: undefined,
    open(record) {
      const kept = keptSchema.safeParse(record.light);
      set({
        ...AT_FIRST,
        plan: undefined,
        section: undefined,
        perspective: undefined,
        ...(kept.success ? kept.data : {}),
        painting: record.id,
        canvas: { widthMm: record.spec.widthMm, heightMm: record.spec.heightMm },
        act: undefined,
        setting: undefined,
        chosen: undefined,
        sight: undefined,
        seen: undefined,
      });
    },
    set,
    change(changes) {
      set(changes);
      keep();
    },
    setThing(thing, passing) {
      setBoard({ things: boardNow(get()).things.map((t) => (t.id === thing.id ? thing : t)) });
      if (!passing) keep();
    },
    add(thing) {
      const { things } = boardNow(get());
      if (things.length >= MOST_THINGS) return undefined;
      const id = 1 + Math.max(0, ...things.map((t) => t.id));
      setBoard({ things: [...things, { ...thing, id }] });
      set({ chosen: id });
      keep();
      return id;
    },
    remove(id) {
      const { things } = boardNow(get());
      // a wall takes its windows along
      setBoard({ things: things.filter((t) => t.id !== id && !(t.is === 'window' && t.wall === id)) });
      set({ chosen: undefined });
      keep();
    },
    setBoard(changes) {
      setBoard(changes);
      keep();
    },
  };
});

/** The board that is drawn on; that of the plan while one draws in perspective. */
export function boardNow(state: Pick<LightState, 'mode' | 'plan' | 'section' | 'canvas'>): LightStudy {
  const view = state.mode === 'section' ? 'section' : 'plan';
  return state[view] ?? emptyBoard(view, state.canvas);
}

export const perspectiveNow = (state: Pick<LightState, 'perspective' | 'canvas'>): PerspectiveLight =>
  state.perspective ?? perspectiveAtFirst(state.canvas);
