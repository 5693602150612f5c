'use client';
import { z } from '@/core/schema';
import { create } from 'zustand';
import { kept } from '@/engine/keeping/kept';
import type { BenchState } from '@/engine/protocol';
import type { ToolCommand } from '@/core/tools/toolCommands';
import { FIRST_IN_HAND, TOOL_IDS, type ToolId } from '@/core/tools/tools';
import { newId } from '@/room/rack/hangFile';
import { SET_OUT, SET_OUT_DRY, SET_OUT_WATER, STAGES, type Stage } from './roll';
import { heldIn, heldSchema, jarFile, PLACES, plainSetup, setupSchema, type Held, type Setup } from './setups';

/** What is painted with: paint that has a body, water, or dry sticks. Each has jars of its own. */
export const KITS = ['paint', 'water', 'dry'] as const;
export type Kit = (typeof KITS)[number];

/** Six set-ups for each stage. */
type Jars = Readonly<Record<Stage, readonly Setup[]>>;

/** Jars of tools as they are held at first. */
const plainJars = (kit: Kit, tools: Readonly<Record<Stage, readonly ToolId[]>>): Jars =>
  Object.fromEntries(
    STAGES.map((stage) => [stage, tools[stage].map((tool) => plainSetup(`${kit} ${stage}`, tool))]),
  ) as unknown as Jars;

export const JARS_AT_FIRST: Readonly<Record<Kit, Jars>> = {
  paint: plainJars('paint', SET_OUT),
  water: plainJars('water', SET_OUT_WATER),
  dry: plainJars('dry', SET_OUT_DRY),
};

const jarsSchema: z.ZodType<Jars> = z.record(z.enum(STAGES), z.array(setupSchema).length(PLACES));
const jarsOf = (kit: Kit) => jarsSchema.catch(JARS_AT_FIRST[kit]);

/** How this painter has set out the jars for each stage, and holds each tool. */
const setOut = kept<Pick<JarState, 'stage' | 'jars' | 'memory'>>({
  store: 'jar',
  key: 'jar',
  version: 2,
  schema: z.object({
    stage: z.enum(STAGES),
    jars: z.object({ paint: jarsOf('paint'), water: jarsOf('water'), dry: jarsOf('dry') }),
    memory: z.partialRecord(z.enum(TOOL_IDS), heldSchema).catch({}),
  }),
  older(value, version) {
    const read = z
      .object({ stage: z.unknown(), jars: z.unknown(), waterJars: z.unknown(), dryJars: z.unknown() })
      .partial()
      .parse(value);
    const { jars } = read;
    // before there were versions the jars for paint stood alone
    const byKit = version === 0 ? { paint: jars, water: read.waterJars, dry: read.dryJars } : (jars as object);
    return { stage: read.stage, jars: ofTools(byKit), memory: {} };
  },
});

/** Jars in which tools stood by their names alone. */
function ofTools(jars: object): unknown {
  const tools = z.record(z.enum(STAGES), z.array(z.enum(TOOL_IDS)).length(PLACES));
  return Object.fromEntries(
    KITS.map((kit) => {
      const read = tools.safeParse((jars as Record<string, unknown>)[kit]);
      return [kit, read.success ? plainJars(kit, read.data) : undefined];
    }),
  );
}

interface JarState {
  /** Whether it has been read how this painter sets out jars. */
  ready: boolean;
  stage: Stage;
  kit: Kit;
  jars: Readonly<Record<Kit, Jars>>;
  /** How each tool was held last that was not taken from a jar. */
  memory: Readonly<Partial<Record<ToolId, Held>>>;
  /** The set-up that is in hand; none where the tool came from elsewhere. */
  inHand: string | undefined;
  read: () => Promise<void>;
  setStage: (stage: Stage) => void;
  setKit: (kit: Kit) => void;
  /** Puts a tool into a place of the jar, as it was held last; it may stand there already. */
  put: (tool: ToolId, place: number) => void;
  /** Two places change what stands in them. */
  swap: (one: number, other: number) => void;
  rename: (place: number, name: string) => void;
  /** A place's tool is held as at first. */
  plain: (place: number) => void;
  setOutAnew: () => void;
  /** Remembers how a tool is held now, from what it was told. */
  remember: (command: ToolCommand) => void;
  hold: (setup: string | undefined) => void;
  /** Sets the jar out as in a file. @throws PainterError when it is none */
  bring: (text: string) => void;
}

export const useJar = create<JarState>((set, get) => {
  const keep = () => {
    const { stage, jars, memory } = get();
    // a jar that cannot be kept is as good for today
    void setOut.write({ stage, jars, memory }).catch(() => {});
  };
  /** Changes the jar that is set out. */
  const change = (jar: (before: readonly Setup[]) => readonly Setup[]) => {
    const { stage, kit, jars } = get();
    set({ jars: { ...jars, [kit]: { ...jars[kit], [stage]: jar(jars[kit][stage]) } } });
    keep();
  };
  const at = (place: number, to: (setup: Setup) => Setup) =>
    change((jar) => jar.map((setup, i) => (i === place ? to(setup) : setup)));
  return {
    ready: false,
    stage: 'Work up',
    kit: 'paint',
    jars: JARS_AT_FIRST,
    memory: {},
    inHand: undefined,
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
      at(place, () => ({ id: newId(), tool, name: '', held: get().memory[tool] ?? {} }));
    },
    swap(one, other) {
      change((jar) => jar.map((setup, i) => (i === one ? jar[other] : i === other ? jar[one] : setup)));
    },
    rename(place, name) {
      at(place, (setup) => ({ ...setup, name: name.trim().slice(0, 40) }));
    },
    plain(place) {
      at(place, (setup) => ({ ...setup, held: {} }));
    },
    setOutAnew() {
      const { stage, kit } = get();
      change(() => JARS_AT_FIRST[kit][stage]);
    },
    remember(command) {
      const held = heldIn(command);
      const { jars, memory, inHand } = get();
      const setup = inHand === undefined ? undefined : setupOf(inHand);
      if (setup && setup.tool !== command.tool) set({ inHand: undefined });
      if (Object.keys(held).length === 0) return;
      if (setup?.tool === command.tool) {
        const told = (jar: readonly Setup[]) =>
          jar.map((one) => (one.id === inHand ? { ...one, held: { ...one.held, ...held } } : one));
        const all = (of: Jars) =>
          Object.fromEntries(STAGES.map((stage) => [stage, told(of[stage])])) as unknown as Jars;
        set({ jars: { paint: all(jars.paint), water: all(jars.water), dry: all(jars.dry) } });
      } else set({ memory: { ...memory, [command.tool]: { ...memory[command.tool], ...held } } });
      keep();
    },
    hold(inHand) {
      set({ inHand });
    },
    bring(text) {
      const { places } = jarFile.decode(text);
      change(() => places.map((place) => ({ ...place, id: newId() })));
    },
  };
});

/** The set-up of an id, in whichever jar it stands. */
export function setupOf(id: string): Setup | undefined {
  const { jars } = useJar.getState();
  for (const kit of KITS)
    for (const stage of STAGES) {
      const found = jars[kit][stage].find((setup) => setup.id === id);
      if (found) return found;
    }
  return undefined;
}

/** The jar that is set out, as a file's text. */
export function jarAsFile(): string {
  const { stage } = useJar.getState();
  const places = jarNow().map(({ tool, name, held }) => ({ tool, name, held }));
  return jarFile.encode({ name: stage, places });
}

/**
 * What is taken in hand on a painting that nobody has touched: the first tool of the jar.
 * @returns nothing where that is in hand, or something has been done or taken already
 */
export function firstInHand(
  bench: Pick<BenchState, 'tool' | 'strokes' | 'level' | 'canUndo' | 'canRedo'>,
  jar: readonly Setup[],
): Setup | undefined {
  const untouched = bench.strokes === 0 && !bench.canUndo && !bench.canRedo && bench.level === 0;
  return untouched && bench.tool.tool === FIRST_IN_HAND && jar[0].tool !== FIRST_IN_HAND ? jar[0] : undefined;
}

/** The six set-ups that stand in the jar now. */
export const jarNow = (): readonly Setup[] => {
  const { jars, kit, stage } = useJar.getState();
  return jars[kit][stage];
};
