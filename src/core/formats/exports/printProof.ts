import { pictureOf } from '@/core/formats/pictures/pictureOf';
import { smaller } from '@/core/formats/pictures/smaller';
import { encodePng } from '@/core/formats/png';
import { PRINT_PAPERS, type PaperId } from '@/core/formats/print/printPapers';
import { printProof as proofOf, proofSays } from '@/core/formats/print/printProof';
import { partOf } from '@/core/formats/step';
import { defineExport } from './definition';
import { litOrNot } from './shared';

const PAPERS = Object.fromEntries(Object.entries(PRINT_PAPERS).map(([id, { name }]) => [id, name])) as Record<
  PaperId,
  string
>;
/** A proof is looked at on a screen. */
const SCREEN_PPI = 96;

export const printProof = defineExport({
  label: 'Proof on the screen, as a paper will show it',
  purposes: ['print'],
  extension: 'png',
  type: 'image/png',
  settings: {
    paper: { kind: 'choice', label: 'Paper', choices: PAPERS, first: 'cotton' },
    asPaper: { kind: 'switch', label: "With the paper's own white and dark", first: true },
    marked: { kind: 'switch', label: 'Out of reach striped', first: true },
    longest: { kind: 'number', label: 'Longest side', unit: 'px', least: 64, most: 4000, step: 1, first: 1400 },
    shown: litOrNot,
  },
  make: ({ plainly, step }, { paper, longest, shown, ...how }) =>
    plainly((picture) => {
      const whole = pictureOf(picture, shown, 8, 'srgb', partOf(step, 0, 0.4));
      const proof = proofOf(smaller(whole, Math.round(longest), false), paper, how, partOf(step, 0.4, 1));
      const { width, height } = proof.raster;
      return {
        bytes: encodePng(proof.raster, SCREEN_PPI, 'srgb'),
        px: [width, height] as const,
        says: [proofSays(proof, paper), 'By a model of the paper and its inks; a print shop has its own profile.'],
      };
    }),
});
