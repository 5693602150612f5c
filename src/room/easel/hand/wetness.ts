import type { PaperState } from '@/engine/questions';

/** A film deeper than this is wet, um; paper with more than this share of what it holds is damp. */
const WET_UM = 18;
const DAMP = 0.15;
/** A brush that would leave less than this is no wetter than damp paper, um. */
const DRY_BRUSH_UM = 40;

export type Paper = 'wet' | 'damp' | 'dry';
export const paperIs = ({ filmUm, damp }: PaperState): Paper =>
  filmUm > WET_UM ? 'wet' : damp > DAMP ? 'damp' : 'dry';

/** The watercolourist's four cases, and what each does. */
export const CASES = [
  { name: 'wet on wet', says: 'spreads far, no edge' },
  { name: 'wet on damp', says: 'soft edge; too wet makes back-runs' },
  { name: 'wet on dry', says: 'found edge, bead stays wet' },
  { name: 'dry on dry', says: 'broken, on the peaks' },
] as const;

/** Which of the four it is: 0..3. A dry brush on wet or damp paper lifts and softens, and counts with that paper. */
export function caseOf(brushFilmUm: number, paper: Paper): number {
  if (paper === 'wet') return 0;
  if (paper === 'damp') return 1;
  return brushFilmUm >= DRY_BRUSH_UM ? 2 : 3;
}
