import { squint } from '@/core/study/looking/squint';
import type { CodeImage } from '@/core/study/looking/image';
import type { Looking, LookingAid } from './definition';

/** Whether an aid shows colours, of whatever picture, and not paint. */
export const showsAnyPicture = (aid: LookingAid): boolean => aid.look !== undefined || aid.seeCode !== undefined;

/** A whole picture, of a canvas or a photo, through an aid; as it is through one that shows what only paint has. */
export function throughAid(image: CodeImage, aid: LookingAid | undefined, how: Looking): Uint32Array {
  const codes = squint(image, how.squintMm);
  if (aid?.look) return aid.look({ ...image, codes }, how, aid.prepare?.(image, how), { x: 0, y: 0 });
  if (aid?.seeCode) return codes.map(aid.seeCode);
  return codes;
}
