import { z } from '@/core/schema';

/**
 * A light study: lamps, windows, sky and sun, and what stands in their way, drawn in plan (seen from above) or in section
 * (cut upright). Lengths in mm of the place, x to the right, y downwards; angles in degrees, 0 to the right, 90 upwards.
 */

const place = z.object({ x: z.number().min(-1e6).max(1e6), y: z.number().min(-1e6).max(1e6) });
/** Linear sRGB: of light without its strength, of a wall what share it gives back. */
const colour = z.tuple([z.number().min(0).max(1), z.number().min(0).max(1), z.number().min(0).max(1)]);
const size = z.number().min(0).max(1e6);
const strength = z.number().min(0).max(100);
const id = z.number().int();

export const LENGTHS = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 } as const;
export type LengthUnit = keyof typeof LENGTHS;

const thing = z.discriminatedUnion('is', [
  z.object({ id, is: z.literal('lamp'), at: place, radiusMm: size, strength, colour }).describe('Strength at 1 m'),
  z.object({
    id,
    is: z.literal('sun'),
    from: z.number(),
    /** How wide it is seen, degrees: 0.53 in a clear sky, more through haze. */
    wide: z.number().min(0).max(90),
    strength,
    colour,
  }),
  z.object({ id, is: z.literal('sky'), strength, colour }),
  z.object({ id, is: z.literal('wall'), from: place, to: place, thickMm: size, colour }),
  z.object({
    id,
    is: z.literal('window'),
    /** The wall that it opens, and where its middle is along that, as a share. */
    wall: id,
    along: z.number().min(0).max(1),
    wideMm: size,
    /** Whether light falls to the other side of the wall. */
    turned: z.boolean(),
    strength,
    colour,
  }),
  z.object({ id, is: z.literal('round'), at: place, radiusMm: size, colour }),
  z.object({ id, is: z.literal('outline'), corners: z.array(place).min(3).max(400), colour }),
]);
export type StudyThing = z.infer<typeof thing>;
export type ThingKind = StudyThing['is'];
export type ThingOf<K extends ThingKind> = Extract<StudyThing, { is: K }>;

/** As many as a board can have; more than a painter draws. */
export const MOST_THINGS = 120;

export const lightStudySchema = z.object({
  view: z.enum(['plan', 'section']),
  widthMm: z.number().min(1).max(1e6),
  heightMm: z.number().min(1).max(1e6),
  unit: z.enum(['mm', 'cm', 'm', 'in', 'ft']),
  things: z.array(thing).max(MOST_THINGS),
});
export type LightStudy = z.infer<typeof lightStudySchema>;
