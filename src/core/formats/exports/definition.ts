import type { Step } from '@/core/formats/step';
import type { Studio } from '@/core/journal/studio';
import type { Picture } from '@/core/picture/picture';
import type { Raster } from '@/core/formats/png';
import { chosenOf, type Chosen, type Settings } from './settings';

type Bytes = Uint8Array<ArrayBuffer>;

/** What a painting is sent out for, in the order in which it is asked. */
export const PURPOSES = {
  web: { name: 'The web', says: 'Small, sharp, seen on any screen.' },
  print: { name: 'Print', says: 'At its real size, for a printer or a print shop.' },
  keep: { name: 'To keep', says: 'With everything that it is, to go on with it anywhere.' },
  program: { name: 'Another program', says: 'In layers, in deep colour, or as a relief.' },
  paint: { name: 'Real paint', says: 'What to buy and to mix, to paint it again.' },
} as const;
export type Purpose = keyof typeof PURPOSES;

/** What of a painting can be sent out. */
export interface SentOut {
  /** Lends the picture of the painting as it is, whatever is looked at. */
  readonly plainly: <T>(render: (picture: Picture) => T) => T;
  readonly ppi: number;
  readonly title: string;
  readonly studio: Studio;
  /** The painting's own file, with its strokes and photos. @param strokesAlone whether the paint is left out */
  readonly paintingFile: (strokesAlone: boolean, step: Step) => Promise<Bytes>;
  /** What takes long says how far it is, and ends where it was given up. */
  readonly step: Step;
  /** A WebP as the machine makes it. @param raster three channels of 8 bits, @param quality 1..100 */
  readonly webp: (raster: Raster, quality: number) => Promise<Bytes>;
}

/** A file that was made, and what there is to say of it. */
export interface Made {
  readonly bytes: Bytes;
  /** Size of the picture in it, pixels. */
  readonly px?: readonly [width: number, height: number];
  readonly says?: readonly string[];
}

/** A way to send a painting out. */
export interface ExportDefinition {
  /** What it is, as a painter chooses it. */
  readonly label: string;
  /** What it is chosen for. */
  readonly purposes: readonly Purpose[];
  readonly extension: string;
  /** Media type (IANA). */
  readonly type: string;
  /** Whether a painting that was sent out so can be hung again with everything that it is. */
  readonly whole?: true;
  /** Where outside such a file can be sent at once. */
  readonly goesTo?: 'print-shop' | 'gallery';
  readonly settings: Settings;
  /** @param given settings, those left out are as they are at first @throws PainterError when it cannot be made so */
  readonly make: (from: SentOut, given?: unknown) => Promise<Made>;
}

/** Defines a way to send a painting out; `exports.ts` brings it into the set of all. */
export function defineExport<const S extends Settings>(
  definition: Omit<ExportDefinition, 'settings' | 'make'> & {
    readonly settings: S;
    make(from: SentOut, chosen: Chosen<S>): Made | Promise<Made>;
  },
): ExportDefinition {
  const { make, settings, ...rest } = definition;
  return { ...rest, settings, make: async (from, given) => make(from, chosenOf(settings, given)) };
}
