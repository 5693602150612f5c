import { chroma } from './chroma';
import type { LookingAid } from './definition';
import { edges } from './edges';
import { lifted } from './lifted';
import { masses } from './masses';
import { temperature } from './temperature';
import { thickness } from './thickness';
import { values } from './values';
import { wet } from './wet';

/** All looking aids, in the order in which they are offered. */
export const AIDS = { values, masses, edges, temperature, chroma, lifted, thickness, wet } satisfies Record<
  string,
  LookingAid
>;

export type AidId = keyof typeof AIDS;
/** What is looked through; nothing where it is `none`. */
export type Aid = AidId | 'none';

export const AID_IDS = Object.keys(AIDS) as AidId[];

/** The aid that is looked through. */
export const aidOf = (aid: Aid): LookingAid | undefined => (aid === 'none' ? undefined : AIDS[aid]);

/** Whether a word names an aid. */
export const isAid = (word: string): word is Aid => word === 'none' || word in AIDS;
