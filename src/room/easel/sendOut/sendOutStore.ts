'use client';
import { create } from 'zustand';
import { PURPOSES, type ExportDefinition, type Purpose } from '@/core/formats/exports/definition';
import { EXPORTS, exportsFor, isExport, type ExportId } from '@/core/formats/exports/exports';
import { chosenOf } from '@/core/formats/exports/settings';
import { z } from '@/core/schema';
import { kept } from '@/engine/keeping/kept';

type Given = Readonly<Record<string, string | number | boolean>>;

/** What a painter sent out last, and how: it is offered again. */
interface LastSent {
  readonly purpose: Purpose;
  /** The kind of file that was chosen for each purpose. */
  readonly kinds: Readonly<Partial<Record<Purpose, ExportId>>>;
  /** Settings of each kind. */
  readonly settings: Readonly<Partial<Record<ExportId, Given>>>;
}

const PURPOSE_IDS = Object.keys(PURPOSES) as [Purpose, ...Purpose[]];
const given = z.record(z.string(), z.union([z.string().max(40), z.number(), z.boolean()]));
const AT_FIRST: LastSent = { purpose: 'keep', kinds: {}, settings: {} };

const own = kept<LastSent>({
  store: 'likings',
  key: 'send-out',
  version: 1,
  schema: z.object({
    purpose: z.enum(PURPOSE_IDS).catch(AT_FIRST.purpose),
    kinds: z
      .record(z.string(), z.string())
      .catch({})
      .transform((all) => Object.fromEntries(Object.entries(all).filter(([, kind]) => isExport(kind)))),
    settings: z.record(z.string(), given).catch({}),
  }) as z.ZodType<LastSent>,
});

interface SendOutState extends LastSent {
  read: () => Promise<void>;
  choose: (changes: Partial<LastSent>) => void;
}

/** What is chosen in "Send out". */
export const useSendOut = create<SendOutState>((set, get) => ({
  ...AT_FIRST,
  async read() {
    const found = await own.read();
    if (found) set(found);
  },
  choose(changes) {
    set(changes);
    const { purpose, kinds, settings } = get();
    // what cannot be kept holds for today
    void own.write({ purpose, kinds, settings }).catch(() => {});
  },
}));

/** The kind of file that is chosen for a purpose: the first where none was, or another is offered now. */
export function kindFor({ kinds }: Pick<LastSent, 'kinds'>, purpose: Purpose): ExportId {
  const offered = exportsFor(purpose);
  const chosen = kinds[purpose];
  return chosen && offered.includes(chosen) ? chosen : offered[0];
}

/** Settings of a kind of file, those that make no sense any more as they are at first. */
export function settingsFor({ settings }: Pick<LastSent, 'settings'>, kind: ExportId): Given {
  const { settings: known }: ExportDefinition = EXPORTS[kind];
  const sound = Object.entries(settings[kind] ?? {}).filter(([name, value]) => {
    try {
      return name in known && chosenOf({ [name]: known[name] }, { [name]: value });
    } catch {
      return false;
    }
  });
  return chosenOf(known, Object.fromEntries(sound)) as Given;
}
