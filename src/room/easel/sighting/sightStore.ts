'use client';
import { z } from '@/core/schema';
import { create } from 'zustand';
import { GUIDE_KINDS, type Guide, type GuideKind } from '@/core/study/guides';
import type { CanvasSize, Place, Register } from '@/core/study/register';
import { SIGHT_KINDS, type Sight, type SightKind } from '@/core/study/sighting';
import { amendPainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';

const place = z.object({ x: z.number(), y: z.number() });
const register = z.object({
  photo: z.string(),
  x: z.number(),
  y: z.number(),
  widthPx: z.number().positive(),
  turn: z.number(),
});
const keptSchema = z.object({
  register: register.optional(),
  sights: z.array(z.object({ id: z.number(), kind: z.enum(SIGHT_KINDS), points: z.array(place).min(1) })),
  unit: z.number().optional(),
  grid: z.object({ columns: z.number().int().min(0).max(40), diagonals: z.boolean() }),
  guides: z.array(z.object({ kind: z.enum(GUIDE_KINDS), points: z.array(place).min(1) })),
  guide: z.number().int().optional(),
  steady: z.number().min(0).max(1),
  lucida: z.number().min(0).max(1),
});
type Kept = z.infer<typeof keptSchema>;

const AT_FIRST: Kept = {
  register: undefined,
  sights: [],
  unit: undefined,
  grid: { columns: 0, diagonals: false },
  guides: [],
  guide: undefined,
  steady: 0,
  lucida: 0.35,
};

/** How many places a sight needs before it is done; a contour is done when the hand lifts. */
const PLACES: Record<SightKind, number> = {
  length: 2,
  angle: 2,
  plumb: 1,
  level: 1,
  box: 2,
  contour: Infinity,
  drift: 2,
};
/** Sights that are drawn in one pull of the hand. */
export const isPulled = (kind: SightKind): boolean => kind === 'length' || kind === 'angle' || kind === 'box';

interface SightState extends Kept {
  painting: string;
  /** What is sighted now; nothing while one paints. */
  kind: SightKind | undefined;
  /** Places of the sight that is being taken. */
  taking: readonly Place[];
  /** Whether the frame on the photo is being set. */
  registering: boolean;
  /** The camera lucida is held up. */
  held: boolean;
  /** Pictures of the photos on the board, for the camera lucida. */
  pictures: ReadonlyMap<string, ImageBitmap>;

  open: (record: PaintingRecord) => void;
  choose: (kind: SightKind | undefined) => void;
  setRegister: (register: Register | undefined) => void;
  /** Takes a place on the canvas (mm) for the sight in hand. @param done whether the hand has lifted */
  take: (p: Place, done: boolean) => void;
  moveLast: (p: Place) => void;
  remove: (id: number) => void;
  clear: () => void;
  /** @param points where they are known; in the middle of the canvas otherwise */
  addGuide: (kind: GuideKind, canvas: CanvasSize, points?: readonly Place[]) => void;
  setGuide: (index: number, points: readonly Place[]) => void;
  removeGuide: (index: number) => void;
  change: (changes: Partial<Omit<Kept, 'sights' | 'guides'>>) => void;
  set: (changes: Partial<Pick<SightState, 'held' | 'registering' | 'pictures'>>) => void;
}

/** A new guide in the middle of the canvas. */
function newGuide(kind: GuideKind, { widthMm: w, heightMm: h }: CanvasSize): Guide {
  const at = (x: number, y: number): Place => ({ x: x * w, y: y * h });
  const points = {
    straight: [at(0.25, 0.5), at(0.75, 0.5)],
    ellipse: [at(0.5, 0.5), at(0.7, 0.5), at(0.5, 0.62)],
    curve: [at(0.2, 0.6), at(0.4, 0.45), at(0.6, 0.55), at(0.8, 0.4)],
    perspective: [at(-0.4, 0.4), at(1.4, 0.4)],
  };
  return { kind, points: points[kind] };
}

export const useSight = create<SightState>((set, get) => {
  const keep = () => {
    const { painting } = get();
    const { register, sights, unit, grid, guides, guide, steady, lucida } = get();
    const drawing = { register, sights, unit, grid, guides, guide, steady, lucida };
    if (painting) void amendPainting(painting, { drawing }).catch(() => {});
  };
  const put = (changes: Partial<SightState>) => {
    set(changes);
    keep();
  };
  const finish = (kind: SightKind, points: readonly Place[]) => {
    const { sights } = get();
    const id = 1 + Math.max(0, ...sights.map((s) => s.id));
    put({ sights: [...sights, { id, kind, points: [...points] }], taking: [] });
  };
  return {
    ...AT_FIRST,
    painting: '',
    kind: undefined,
    taking: [],
    registering: false,
    held: false,
    pictures: new Map(),
    open(record) {
      const kept = keptSchema.safeParse(record.drawing);
      set({
        ...AT_FIRST,
        ...(kept.success ? kept.data : {}),
        painting: record.id,
        kind: undefined,
        taking: [],
        registering: false,
        held: false,
      });
    },
    choose(kind) {
      set({ kind: get().kind === kind ? undefined : kind, taking: [], registering: false });
    },
    setRegister(next) {
      put({ register: next });
    },
    take(p, done) {
      const { kind, taking } = get();
      if (!kind) return;
      const points = [...taking, p];
      if (kind === 'contour') {
        if (done && points.length > 2) finish(kind, points);
        else set({ taking: done ? [] : points });
      } else if (points.length >= PLACES[kind]) finish(kind, points);
      else set({ taking: points });
    },
    moveLast(p) {
      const { taking } = get();
      if (taking.length > 0) set({ taking: [...taking.slice(0, 1), p] });
    },
    remove(id) {
      const { sights, unit } = get();
      put({ sights: sights.filter((s) => s.id !== id), unit: unit === id ? undefined : unit });
    },
    clear() {
      put({ sights: [], unit: undefined, taking: [] });
    },
    addGuide(kind, canvas, points = newGuide(kind, canvas).points) {
      const guides = [...get().guides, { kind, points: [...points] }];
      put({ guides, guide: guides.length - 1 });
    },
    setGuide(index, points) {
      put({ guides: get().guides.map((g, i) => (i === index ? { ...g, points: [...points] } : g)) });
    },
    removeGuide(index) {
      const { guides, guide } = get();
      const rest = guides.filter((_, i) => i !== index);
      put({
        guides: rest,
        guide: guide === undefined || guide === index ? undefined : guide > index ? guide - 1 : guide,
      });
    },
    change(changes) {
      put(changes);
    },
    set(changes) {
      set(changes);
    },
  };
});

/** The guide that strokes follow now. */
export const guideInUse = (): Guide | undefined => {
  const { guides, guide } = useSight.getState();
  return guide === undefined ? undefined : guides[guide];
};

/** The length that others are told in, mm. */
export const unitOf = (sights: readonly Sight[], unit: number | undefined): number | undefined => {
  const sight = sights.find((s) => s.id === unit && s.kind === 'length');
  if (!sight) return undefined;
  const [a, b] = sight.points;
  return Math.hypot(b.x - a.x, b.y - a.y) || undefined;
};
