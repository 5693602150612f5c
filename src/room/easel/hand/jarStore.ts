'use client';
import { z } from '@/core/schema';
import { create } from 'zustand';
import { kept } from '@/engine/keeping/kept';
import type { BenchState } from '@/engine/protocol';
import { FIRST_IN_HAND, TOOL_IDS, type ToolId } from '@/core/tools/tools';
import { SET_OUT, SET_OUT_DRY, SET_OUT_WATER, STAGES, type Stage } from './roll';

/** What is painted with: paint that has a body, water, or dry sticks. Each has jars of its own. */
export const KITS = ['paint', 'water', 'dry'] as const;
export type Kit = (typeof KITS)[number];
const AT_FIRST = { paint: SET_OUT, water: SET_OUT_WATER, dry: SET_OUT_DRY };

const jarsSchema: z.ZodType<Jars> = z.record(z.enum(STAGES), z.array(z.enum(TOOL_IDS)).length(6));

/** Six tools for each stage. */
type Jars = Readonly<Record<Stage, readonly ToolId[]>>;

/** What stands in the jars for each stage, as this painter has set them out. */
const setOut = kept<Pick<JarState, 'stage' | 'jars'>>({
  store: 'jar',
  key: 'jar',
  version: 1,
  schema: z.object({
    stage: z.enum(STAGES),
    jars: z.object({
      paint: jarsSchema.catch(SET_OUT),
      water: jarsSchema.catch(SET_OUT_WATER),
      dry: jarsSchema.catch(SET_OUT_DRY),
    }),
  }),
  older(value) {
    const { stage, jars, waterJars, dryJars } = z
      .object({ stage: z.unknown(), jars: z.unknown(), waterJars: z.unknown(), dryJars: z.unknown() })
      .partial()
      .parse(value);
    return { stage, jars: { paint: jars, water: waterJars, dry: dryJars } };
  },
});

interface JarState {
  /** Whether it has been read how this painter sets out jars. */
  ready: boolean;
  stage: Stage;
  kit: Kit;
  jars: Readonly<Record<Kit, Jars>>;
  read: () => Promise<void>;
  setStage: (stage: Stage) => void;
  setKit: (kit: Kit) => void;
  /** Puts a tool into a place of the jar; one that stands there already changes places with it. */
  put: (tool: ToolId, place: number) => void;
  setOutAnew: () => void;
}

export const useJar = create<JarState>((set, get) => {
  const keep = () => {
    const { stage, jars } = get();
    // a jar that cannot be kept is as good for today
    void setOut.write({ stage, jars }).catch(() => {});
  };
  return {
    ready: false,
    stage: 'Work up',
    kit: 'paint',
    jars: AT_FIRST,
    async read() {
      set({ ...(await setOut.read()), ready: true });
    },
    setStage(stage) {
      set({ stage });
      keep();
    },
    setKit(kit) {
      set({ kit });
    },
    put(tool, place) {
      const { stage, kit, jars } = get();
      const jar = jars[kit][stage];
      const there = jar.indexOf(tool);
      const next = jar.map((t, i) => (i === place ? tool : i === there ? jar[place] : t));
      set({ jars: { ...jars, [kit]: { ...jars[kit], [stage]: next } } });
      keep();
    },
    setOutAnew() {
      const { stage, kit, jars } = get();
      set({ jars: { ...jars, [kit]: { ...jars[kit], [stage]: AT_FIRST[kit][stage] } } });
      keep();
    },
  };
});

/**
 * What is taken in hand on a painting that nobody has touched: the first tool of the jar.
 * @returns nothing where that is in hand, or something has been done or taken already
 */
export function firstInHand(
  bench: Pick<BenchState, 'tool' | 'strokes' | 'level' | 'canUndo' | 'canRedo'>,
  jar: readonly ToolId[],
): ToolId | undefined {
  const untouched = bench.strokes === 0 && !bench.canUndo && !bench.canRedo && bench.level === 0;
  return untouched && bench.tool.tool === FIRST_IN_HAND && jar[0] !== FIRST_IN_HAND ? jar[0] : undefined;
}

/** The six tools that stand in the jar now. */
export const jarNow = (): readonly ToolId[] => {
  const { jars, kit, stage } = useJar.getState();
  return jars[kit][stage];
};
