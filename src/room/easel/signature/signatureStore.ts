'use client';
import { create } from 'zustand';
import { z } from '@/core/schema';
import { placedStrokes, signatureSchema, withDate, type Signature, type SignaturePlace } from '@/core/study/signature';
import { kept } from '@/engine/keeping/kept';
import { useEasel } from '@/room/easel/easelStore';

/** What can be drawn and kept: a whole signature, and one of a few letters. */
export const SIGNS = { signature: 'Signature', monogram: 'Monogram' } as const;
export type Sign = keyof typeof SIGNS;
export const DATES = { none: 'No date', year: 'The year', day: 'The day' } as const;
export type Dated = keyof typeof DATES;

type KeptSigns = Readonly<Partial<Record<Sign, Signature>>>;
const own = kept<KeptSigns>({
  store: 'likings',
  key: 'signatures',
  version: 1,
  schema: z.object({
    signature: signatureSchema.optional().catch(undefined),
    monogram: signatureSchema.optional().catch(undefined),
  }) as unknown as z.ZodType<KeptSigns>,
});

interface SignatureState {
  signs: KeptSigns;
  sign: Sign;
  dated: Dated;
  /** Where it is to stand, while it is being placed. */
  at: SignaturePlace | undefined;
  trouble: string;
  read: () => Promise<void>;
  keep: (strokes: Signature | undefined) => void;
  choose: (changes: Partial<Pick<SignatureState, 'sign' | 'dated'>>) => void;
  /** Lays it on the canvas, low on the right, to be moved about. */
  lay: () => void;
  move: (changes: Partial<SignaturePlace>) => void;
  /** Paints it with the tool in hand. */
  paint: () => void;
}

/** How high it is at first, mm, as a share of the painting; and how far from its rim. */
const HIGH = 0.05;
const FROM_RIM = 0.14;

const dateText = (dated: Dated): string => {
  const now = new Date();
  if (dated === 'none') return '';
  return dated === 'year' ? `${now.getFullYear()}` : `${now.getDate()}.${now.getMonth() + 1}.${now.getFullYear()}`;
};

/** What was drawn with the date that is wished for; undefined where nothing was. */
export const signOf = ({ signs, sign, dated }: Pick<SignatureState, 'signs' | 'sign' | 'dated'>) => {
  const drawn = signs[sign];
  return drawn && withDate(drawn, dateText(dated));
};

/** The painter's signature: drawn once, kept, and painted for real where it is set down. */
export const useSignature = create<SignatureState>((set, get) => ({
  signs: {},
  sign: 'signature',
  dated: 'none',
  at: undefined,
  trouble: '',
  async read() {
    const found = await own.read();
    if (found) set({ signs: found });
  },
  keep(strokes) {
    const signs = { ...get().signs, [get().sign]: strokes };
    set({ signs, trouble: '', ...(!strokes && { at: undefined }) });
    own.write(signs).catch(() => set({ trouble: 'It could not be kept in this browser; it holds for today.' }));
  },
  choose: (changes) => set(changes),
  lay() {
    const spec = useEasel.getState().opened?.spec;
    if (!spec) return;
    const { widthMm, heightMm } = spec;
    const rim = FROM_RIM * Math.min(widthMm, heightMm);
    set({ at: { x: widthMm - rim * 1.6, y: heightMm - rim, heightMm: HIGH * Math.min(widthMm, heightMm), turn: 0 } });
  },
  move(changes) {
    const { at } = get();
    if (at) set({ at: { ...at, ...changes } });
  },
  paint() {
    const { at } = get();
    const drawn = signOf(get());
    if (!at || !drawn) return;
    const { apply } = useEasel.getState();
    for (const samples of placedStrokes(drawn, at)) apply({ do: 'stroke', samples });
    set({ at: undefined });
  },
}));
