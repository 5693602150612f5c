'use client';
import { create } from 'zustand';
import { knowPaint, type OwnPaint } from '@/core/colour/ownPaints';
import { isTube, pigmentName } from '@/core/colour/pigments';
import type { Mixture } from '@/core/colour/mixture';
import { TUBE_SETS, type TubeSet } from '@/core/colour/tubeSets';
import { PainterError } from '@/core/errors';
import * as shelf from '@/engine/files/colourShelf';
import { amendPainting, readPainting } from '@/engine/keeping/shelf';
import { NO_RULES, type HouseRules } from '@/core/commands/houseRules';
import type { Palette } from '@/engine/keeping/paintingRecord';
import { newId } from '../rack/hangFile';

const [GENERAL] = TUBE_SETS;
const MOST_ASIDE = 8;

/** Tubes at hand for the painting on the easel, the sets to take them from, and the rules set for it. */
interface PaletteState extends Palette {
  /** The painting that they are kept with; none while nothing is on the easel. */
  painting: string | undefined;
  ownSets: readonly TubeSet[];
  ownPaints: readonly OwnPaint[];
  /** What could not be kept or done, in a sentence. */
  trouble: string;

  /** Reads what is kept: own sets and paints, and the tubes of a painting. */
  open: (painting?: string) => Promise<void>;
  choose: (set: TubeSet) => void;
  setTubes: (tubes: readonly string[]) => void;
  setNote: (note: string) => void;
  setRules: (rules: Partial<HouseRules>) => void;
  keepParts: (parts: Readonly<Record<string, number>>) => void;
  saveSet: (name: string, note: string, tubes: readonly string[]) => Promise<void>;
  removeSet: (id: string) => Promise<void>;
  addPaint: (paint: OwnPaint) => Promise<void>;
  /** Brings the own paints of a mixture into the painting, before the engine is told to use them. */
  bring: (mixture: Readonly<Record<string, number>>) => void;
  /** Mixtures that are to be squeezed out on the slab when the painting is next on the easel. */
  waiting: readonly Mixture[];
  setOut: (mixtures: readonly Mixture[]) => void;
  /** Mixtures laid beside the one in hand, newest first: to come back to, and as ends of strings. */
  aside: readonly Mixture[];
  setAside: (mixture: Mixture) => void;
}

/** Called when the painting's worker has to hear of what changed. */
type Listener = (change: { rules?: true; paint?: OwnPaint }) => void;
const listeners = new Set<Listener>();
/** Tells the engine of rules and paints from now on. @returns how to stop that */
export function onPaletteChange(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The only tubes that may be used, where that is a rule. */
export const allowedTubes = ({ rules, tubes }: Palette): readonly string[] | undefined =>
  rules.onlyTheseTubes ? tubes : undefined;

export const usePalette = create<PaletteState>((set, get) => {
  /** Writes the palette into the painting's record. */
  const keep = () => {
    const { painting, name, tubes, note, rules, parts } = get();
    if (!painting) return;
    amendPainting(painting, { palette: { name, tubes, note, rules, parts } }).catch(() =>
      set({ trouble: 'The tubes could not be kept in this browser.' }),
    );
  };
  const change = (changes: Partial<Palette>) => {
    set({ ...changes, trouble: '' });
    keep();
    if ('rules' in changes || 'tubes' in changes) for (const tell of listeners) tell({ rules: true });
  };
  return {
    painting: undefined,
    name: GENERAL.name,
    tubes: GENERAL.tubes,
    note: GENERAL.note,
    rules: NO_RULES,
    parts: undefined,
    ownSets: [],
    ownPaints: [],
    trouble: '',
    waiting: [],
    aside: [],

    async open(painting) {
      const [ownSets = [], ownPaints = [], record] = await Promise.all([
        shelf.ownSets.read(),
        shelf.ownPaints.read(),
        painting ? readPainting(painting).catch(() => null) : null,
      ]);
      for (const paint of [...(record?.spec.paints ?? []), ...ownPaints]) {
        try {
          knowPaint(paint);
        } catch {
          set({ trouble: `There was no room for ${paint.name} among the tubes.` });
        }
      }
      const palette = record?.palette;
      const tubes = palette?.tubes.filter(isTube) ?? GENERAL.tubes;
      set({
        painting,
        ownSets,
        ownPaints,
        name: palette?.name ?? GENERAL.name,
        tubes: tubes.length > 0 ? tubes : GENERAL.tubes,
        note: palette?.note ?? GENERAL.note,
        rules: { ...NO_RULES, ...palette?.rules },
        parts: palette?.parts,
      });
    },
    choose({ name, tubes, note }) {
      change({ name, tubes: tubes.filter(isTube), note });
    },
    setTubes(tubes) {
      if (tubes.length > 0) change({ tubes: [...new Set(tubes)] });
    },
    setNote(note) {
      change({ note });
    },
    setRules(rules) {
      change({ rules: { ...get().rules, ...rules } });
    },
    keepParts(parts) {
      set({ parts });
      keep();
    },
    async saveSet(name, note, tubes) {
      const before = get().ownSets;
      const same = before.find((s) => s.name === name);
      const saved: TubeSet = { id: same?.id ?? newId(), name, note, tubes };
      const ownSets = same ? before.map((s) => (s === same ? saved : s)) : [...before, saved];
      try {
        await shelf.ownSets.write(ownSets);
      } catch {
        throw new PainterError('The set could not be kept in this browser.');
      }
      set({ ownSets });
      change({ name, note, tubes });
    },
    async removeSet(id) {
      const ownSets = get().ownSets.filter((s) => s.id !== id);
      await shelf.ownSets.write(ownSets);
      set({ ownSets });
    },
    async addPaint(paint) {
      try {
        knowPaint(paint);
      } catch (error) {
        throw new PainterError(error instanceof Error ? error.message : 'There is no room for this paint.');
      }
      const known = get().ownPaints;
      if (!known.some((p) => p.id === paint.id)) {
        const ownPaints = [...known, paint];
        try {
          await shelf.ownPaints.write(ownPaints);
        } catch {
          throw new PainterError(`${pigmentName(paint.id)} could not be kept in this browser.`);
        }
        set({ ownPaints });
      }
      if (!get().tubes.includes(paint.id)) change({ tubes: [...get().tubes, paint.id] });
    },
    setAside(mixture) {
      const same = JSON.stringify(mixture);
      const others = get().aside.filter((m) => JSON.stringify(m) !== same);
      set({ aside: [mixture, ...others].slice(0, MOST_ASIDE) });
    },
    setOut(waiting) {
      set({ waiting });
    },
    bring(mixture) {
      const { painting, ownPaints } = get();
      const needed = ownPaints.filter((p) => (mixture[p.id] ?? 0) > 0);
      if (!painting || needed.length === 0) return;
      for (const paint of needed) for (const tell of listeners) tell({ paint });
      amendPainting(painting, ({ spec }) => {
        const has = spec.paints ?? [];
        return { spec: { ...spec, paints: [...has, ...needed.filter((p) => !has.some((q) => q.id === p.id))] } };
      }).catch(() => set({ trouble: 'This paint could not be kept with the painting.' }));
    },
  };
});
