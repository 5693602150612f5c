import { FIRST_IN_HAND, toolOf, type ToolId } from '@/core/tools/tools';
import type { Journal } from './journalSchema';
import { FAR_MM } from './strokeInAir';

/** Odd things that are told at most. */
const MOST = 20;

/**
 * What in a journal is allowed and probably not meant: pressure over 1, times that run back, a stroke before the tool was
 * ever loaded, readings far from the painting.
 * @returns sentences, the first of many
 */
export function oddities({ entries, painting }: Journal): string[] {
  const found: string[] = [];
  const loaded = new Set<ToolId>();
  let inHand: ToolId = FIRST_IN_HAND;
  const far = FAR_MM + 2 * Math.max(painting.widthMm, painting.heightMm);
  const outside = (v: number, size: number) => v < -far || v > size + far;
  for (const [i, entry] of entries.entries()) {
    const say = (what: string) => found.push(`Entry ${i + 1}: ${what}`);
    if (entry.do === 'tool') inHand = entry.tool;
    else if (entry.do === 'load' || entry.do === 'slab.take') loaded.add(inHand);
    if (entry.do !== 'stroke') continue;
    const { samples } = entry;
    const { takesPaint, blender, holds } = toolOf(inHand);
    // a stick is made of something, and a pen is dipped
    if (takesPaint && !blender && holds !== 'made' && !loaded.has(inHand)) {
      say(`a stroke with ${inHand}, which has not been loaded.`);
      loaded.add(inHand);
    }
    const hard = samples.find(([, , , pressure]) => pressure > 1 || pressure < 0);
    if (hard) say(`a pressure of ${hard[3]} counts as ${hard[3] > 1 ? 1 : 0}.`);
    const back = samples.findIndex(([t], k) => k > 0 && t < samples[k - 1][0]);
    if (back > 0) say(`time runs back at reading ${back + 1}.`);
    const away = samples.find(([, x, y]) => outside(x, painting.widthMm) || outside(y, painting.heightMm));
    if (away) say(`a reading at ${away[1]}, ${away[2]} mm is taken as one nearer to the painting.`);
  }
  if (found.length <= MOST) return found;
  return [...found.slice(0, MOST), `... and ${found.length - MOST} more such things.`];
}
