import { z } from '@/core/schema';

/** Sizes that a film may have, pixels. */
export const FILM_SIZES = {
  '1280x720': [1280, 720],
  '1920x1080': [1920, 1080],
  '1080x1080': [1080, 1080],
  '720x1280': [720, 1280],
} as const;
export type FilmSize = keyof typeof FILM_SIZES;
export const FRAMES_A_SECOND = 25;

export const filmSettings = z.object({
  size: z.enum(Object.keys(FILM_SIZES) as [FilmSize, ...FilmSize[]]).catch('1280x720'),
  /** How long all of it lasts, title and last still among it, s. */
  seconds: z.number().min(5).max(600).catch(20),
  by: z.enum(['stroke', 'time']).catch('stroke'),
  captions: z.boolean().catch(true),
  footprint: z.boolean().catch(true),
  titled: z.boolean().catch(true),
});
export type FilmSettings = z.output<typeof filmSettings>;

/** What a film is made of beside the painting itself. */
export interface FilmWanted extends FilmSettings {
  readonly title: string;
  /** Words that stand for those of a stage, by the number of its first stroke. */
  readonly words: Readonly<Record<number, string>>;
}
