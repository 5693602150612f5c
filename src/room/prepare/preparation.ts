import { isTube } from '@/core/colour/pigments';
import type { OwnPaint } from '@/core/colour/ownPaints';
import type { TubeSet } from '@/core/colour/tubeSets';
import { houseRulesSchema, NO_RULES, type HouseRules } from '@/core/commands/houseRules';
import { MAX_CELLS } from '@/core/commands/memoryBudget';
import { PainterError } from '@/core/errors';
import { gridOf, type PaintingSpec } from '@/core/film/painting';
import { paintingSchema } from '@/core/journal/journalSchema';
import { z } from '@/core/schema';
import { isDrawingPaper } from '@/core/surface/drawingPaper';
import {
  isSheet,
  MADE_SURFACES,
  PAPER_TINTS,
  type PaperTint,
  type SurfaceKind,
  type SurfaceSpec,
} from '@/core/surface/heightField';
import type { OwnSurface } from '@/core/surface/ownSurface';
import { isPaper } from '@/core/surface/paper';
import { kept } from '@/engine/keeping/kept';
import { isStorageFull } from '@/engine/keeping/shelf';
import type { PaintingRecord, Palette } from '@/engine/keeping/paintingRecord';

/** Parts of tubes. */
export type Parts = Readonly<Record<string, number>>;

/** What a painting is to be painted on, as it is chosen before it is begun. */
export interface Preparation {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ppi: number;
  readonly kind: SurfaceKind;
  /** Size and depth of the grain, 1 = as made. */
  readonly scale: number;
  readonly depth: number;
  /** The scan, for a surface of one's own. */
  readonly own?: OwnSurface;
  /** Watercolour paper: g/m2; 0 drinks .. 1 lets nothing in. */
  readonly weight: number;
  readonly sizing: number;
  readonly tint: PaperTint;
  /** Toned with these tubes; none leaves it bare. */
  readonly tone: Parts;
  /** Id of the set of tubes at hand. */
  readonly tubes: string;
  readonly rules: HouseRules;
}

const OCHRE: Parts = { PW6: 2, PY43: 3 };

export const AT_FIRST: Preparation = {
  title: 'Low tide, study',
  widthMm: 300,
  heightMm: 200,
  ppi: 150,
  kind: 'linen-fine',
  scale: 1,
  depth: 1,
  weight: 300,
  sizing: 0.65,
  tint: 'natural',
  tone: OCHRE,
  tubes: 'general',
  rules: NO_RULES,
};

/** Another support: watercolour and sticks begin on bare paper, paint with a body on a tone. */
export function onSurface(before: Preparation, kind: SurfaceKind): Preparation {
  const sheet = isSheet(kind) !== isSheet(before.kind) ? { tone: isSheet(kind) ? {} : OCHRE } : {};
  const drawing = isDrawingPaper(kind) && !isDrawingPaper(before.kind) ? { tint: 'sand' as const } : {};
  const paper = isPaper(kind) && !isPaper(before.kind) ? { tint: 'natural' as const } : {};
  return { ...before, ...sheet, ...drawing, ...paper, kind };
}

/** Starts that are ready: everything of them can still be changed. */
export const STARTS: readonly { readonly name: string; readonly of: Partial<Preparation> & { kind: SurfaceKind } }[] = [
  { name: 'Oil on toned linen', of: { kind: 'linen-fine', tone: OCHRE, tubes: 'general' } },
  { name: 'Watercolour on cold-pressed', of: { kind: 'paper-cold', tone: {}, tubes: 'watercolour' } },
  { name: 'Pastel on laid paper', of: { kind: 'paper-laid', tone: {}, tubes: 'pastel' } },
];

export const started = (before: Preparation, { of }: (typeof STARTS)[number]): Preparation => ({
  ...onSurface(before, of.kind),
  scale: 1,
  depth: 1,
  ...of,
});

/** The tone as a mixture; tubes without a part are not in it. */
export const toneOf = ({ tone }: Preparation): Parts =>
  Object.fromEntries(Object.entries(tone).filter(([, parts]) => parts > 0));

export const surfaceOf = ({
  kind,
  scale,
  depth,
  own,
  weight,
  sizing,
  tint,
}: Pick<Preparation, 'kind' | 'scale' | 'depth' | 'own' | 'weight' | 'sizing' | 'tint'>): SurfaceSpec => ({
  kind,
  scale,
  depth,
  ...(kind === 'own' ? { own } : {}),
  ...(isPaper(kind) ? { weight, sizing } : {}),
  ...(isSheet(kind) ? { tint } : {}),
});

/** Pixels that it will have each way. */
export const pixelsOf = ({ widthMm, heightMm, ppi }: Preparation) => gridOf({ widthMm, heightMm, ppi });

/** What still stands in the way of painting on it, in a sentence; '' when nothing does. */
export function lacks(preparation: Preparation): string {
  const { width, height } = pixelsOf(preparation);
  if (width * height > MAX_CELLS)
    return `More than ${MAX_CELLS / 1e6} million pixels: choose a smaller size or resolution.`;
  if (preparation.kind === 'own' && !preparation.own) return 'A surface of your own needs its scan.';
  return '';
}

/**
 * What the painting is begun with.
 * @param seed of its grain
 * @param paints own paints at hand: those in the tone travel along
 * @throws PainterError when it cannot be prepared so
 */
export function specOf(preparation: Preparation, seed: number, paints: readonly OwnPaint[]): PaintingSpec {
  const { widthMm, heightMm, ppi } = preparation;
  const mixture = toneOf(preparation);
  const own = paints.filter(({ id }) => id in mixture);
  const spec = paintingSchema.safeParse({
    widthMm,
    heightMm,
    ppi,
    seed,
    surface: surfaceOf(preparation),
    ...(Object.keys(mixture).length > 0 ? { tone: { mixture } } : {}),
    ...(own.length > 0 ? { paints: own } : {}),
  });
  if (!spec.success) throw new PainterError(`This painting cannot be prepared: ${spec.error.issues[0].message}.`);
  return spec.data;
}

/** How a painting was prepared; its tubes and rules are on its bench. */
export const preparationOf = ({ title, spec }: Pick<PaintingRecord, 'title' | 'spec'>): Preparation => ({
  ...AT_FIRST,
  title,
  widthMm: spec.widthMm,
  heightMm: spec.heightMm,
  ppi: spec.ppi,
  ...spec.surface,
  tone: spec.tone?.mixture ?? {},
});

/** Why a painting could not be begun, in a sentence. */
export const whyNotBegun = (error: unknown): string =>
  error instanceof PainterError
    ? error.message
    : isStorageFull(error)
      ? 'This browser has no room left for another painting.'
      : 'The painting could not be kept in this browser.';

/** What is set out on the bench for it. */
export const paletteOf = ({ rules }: Preparation, set: TubeSet): Palette => ({
  name: set.name,
  note: set.note,
  tubes: set.tubes.filter(isTube),
  rules,
});

/** How the last painting was prepared; a scan of one's own is not kept beside the painting. */
export const lastPreparation = kept<Preparation>({
  store: 'preparation',
  key: 'last',
  version: 2,
  schema: z.object({
    title: z.string(),
    widthMm: z.number().min(5).max(5000),
    heightMm: z.number().min(5).max(5000),
    ppi: z.number().min(50).max(600),
    kind: z.enum(MADE_SURFACES as [SurfaceKind, ...SurfaceKind[]]),
    scale: z.number(),
    depth: z.number(),
    weight: z.number(),
    sizing: z.number(),
    tint: z.enum(Object.keys(PAPER_TINTS) as [PaperTint, ...PaperTint[]]),
    tone: z.record(z.string(), z.number()),
    tubes: z.string(),
    rules: houseRulesSchema.catch(NO_RULES),
  }),
  older(value) {
    const { onlyTheseTubes, ...rest } = z.looseObject({ onlyTheseTubes: z.boolean().catch(false) }).parse(value);
    return { ...rest, rules: { ...NO_RULES, onlyTheseTubes } };
  },
});
