import { PainterError } from '@/core/errors';

/** Is told how far something is that takes long, 0..1. @throws GivenUp where nobody waits for it any more */
export type Step = (share: number) => void;

/** Nobody waits any more for what is being made. */
export class GivenUp extends PainterError {
  constructor() {
    super('It was given up.');
  }
}

/** The step of a part of what is made: from one share of the whole to another. */
export const partOf =
  (step: Step, from: number, to: number): Step =>
  (share) =>
    step(from + (to - from) * share);
