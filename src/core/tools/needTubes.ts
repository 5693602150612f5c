import { isTube } from '@/core/colour/pigments';
import { PainterError } from '@/core/errors';

/** @throws PainterError when a painting does not have a tube */
export function needTubes(ids: readonly string[]): void {
  const missing = ids.find((id) => !isTube(id));
  if (missing) throw new PainterError(`This painting has no tube "${missing}".`);
}
