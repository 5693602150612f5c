import type { Preparation } from './preparation';

/** What each part of the preparation is given: what has been chosen, and how to choose otherwise. */
export interface Section {
  readonly it: Preparation;
  readonly change: (changes: Partial<Preparation>) => void;
}
