import type { LookingAid } from './definition';
import { values } from './values';
import { wet } from './wet';

/** All looking aids, in the order in which they are offered. */
export const AIDS = { values, wet } satisfies Record<string, LookingAid>;

export type AidId = keyof typeof AIDS;
/** What is looked through; nothing where it is `none`. */
export type Aid = AidId | 'none';

export const AID_IDS = Object.keys(AIDS) as AidId[];

/** The aid that is looked through. */
export const aidOf = (aid: Aid): LookingAid | undefined => (aid === 'none' ? undefined : AIDS[aid]);
