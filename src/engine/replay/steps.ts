import { encodePng } from '@/core/formats/png';
import { fitted } from '@/core/picture/movingPicture';
import type { FromReplay, StepPicture } from './replayMessages';
import type { Making } from './making';

/** Pictures of a painting at some places of its history. @param ends those places, ascending, @param most longest side, pixels */
export async function makeSteps(
  { player, picture, reach, tell }: Making,
  ends: readonly number[],
  most: number,
): Promise<FromReplay | undefined> {
  const pictures: StepPicture[] = [];
  for (const [i, done] of ends.entries()) {
    tell(i, ends.length);
    if (!(await reach({ done, readings: 0 }))) return undefined;
    const { size } = picture;
    const zoom = Math.min(1, most / Math.max(size.width, size.height));
    const [width, height] = [Math.round(size.width * zoom), Math.round(size.height * zoom)];
    const rgba = picture.draw(fitted(width, height, size), { left: 0, top: 0, right: width, bottom: height });
    const data = new Uint8Array(width * height * 3);
    for (let k = 0; k < width * height; k++) for (let c = 0; c < 3; c++) data[3 * k + c] = rgba[4 * k + c];
    pictures.push({
      width,
      height,
      png: encodePng({ width, height, channels: 3, data }, player.studio.painting.spec.ppi * zoom),
    });
  }
  return { say: 'steps', pictures };
}
