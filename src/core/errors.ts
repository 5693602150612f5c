/** A mistake that a person can make and mend. The message is a sentence to be shown as it is. */
export class PainterError extends Error {
  override readonly name = 'PainterError';
}
