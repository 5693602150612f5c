'use client';
import localforage from 'localforage';
import { z } from 'zod';
import { create } from 'zustand';
import { TOOL_IDS, type ToolId } from '@/core/marks/tools';
import { SET_OUT, STAGES, type Stage } from './roll';

/** What stands in the jar for each stage, as this painter has set it out. */
const keptSchema = z.object({
  stage: z.enum(STAGES),
  jars: z.record(z.enum(STAGES), z.array(z.enum(TOOL_IDS)).length(6)),
});

const shelf = () => localforage.createInstance({ name: 'stigmos-jar', storeName: 'jar' });

interface JarState {
  stage: Stage;
  jars: Readonly<Record<Stage, readonly ToolId[]>>;
  read: () => Promise<void>;
  setStage: (stage: Stage) => void;
  /** Puts a tool into a place of the jar; one that stands there already changes places with it. */
  put: (tool: ToolId, place: number) => void;
  setOutAnew: () => void;
}

export const useJar = create<JarState>((set, get) => {
  const keep = () => {
    const { stage, jars } = get();
    // a jar that cannot be kept is as good for today
    void shelf()
      .setItem('jar', { stage, jars })
      .catch(() => {});
  };
  return {
    stage: 'Work up',
    jars: SET_OUT,
    async read() {
      const kept = keptSchema.safeParse(
        await shelf()
          .getItem('jar')
          .catch(() => null),
      );
      if (kept.success) set({ stage: kept.data.stage, jars: kept.data.jars });
    },
    setStage(stage) {
      set({ stage });
      keep();
    },
    put(tool, place) {
      const { stage, jars } = get();
      const { [stage]: jar } = jars;
      const there = jar.indexOf(tool);
      const next = jar.map((t, i) => (i === place ? tool : i === there ? jar[place] : t));
      set({ jars: { ...jars, [stage]: next } });
      keep();
    },
    setOutAnew() {
      const { stage, jars } = get();
      set({ jars: { ...jars, [stage]: SET_OUT[stage] } });
      keep();
    },
  };
});

/** The six tools that stand in the jar now. */
export const jarNow = (): readonly ToolId[] => {
  const { jars, stage } = useJar.getState();
  return jars[stage];
};
