import type { OwnWords } from '@/core/journal/playing/captions';
import { stageWords, type Told } from '@/core/journal/playing/stages';
import type { StepPicture } from '@/engine/replay/replayMessages';
import { fileName, saveFile } from '@/room/parts/saveFile';

/** How pictures of stages are saved, and how long their longest side is, pixels. */
export const STEP_KINDS = {
  zip: { label: 'Pictures (ZIP)', px: 4096 },
  pdf: { label: 'Pages (PDF)', px: 1800 },
} as const;
export type StepKind = keyof typeof STEP_KINDS;

interface Steps {
  readonly title: string;
  readonly told: Told;
  readonly words: OwnWords;
  readonly pictures: readonly StepPicture[];
}

/** Saves one picture of the end of each stage: as PNG in a ZIP, or as pages. */
export async function saveSteps(kind: StepKind, { title, told, words, pictures }: Steps): Promise<void> {
  const said = told.stages.map((stage) => words[stage.strokes[0]] ?? stageWords(stage));
  if (kind === 'zip') {
    const { zipSync } = await import('fflate');
    const files = pictures.map(({ png }, i) => [fileName(`${String(i + 1).padStart(2, '0')} ${said[i]}`, 'png'), png]);
    saveFile(
      fileName(`${title} stages`, 'zip'),
      zipSync(Object.fromEntries(files), { level: 0 }) as BlobPart,
      'application/zip',
    );
    return;
  }
  const { stagesPdf } = await import('@/core/formats/print/stagesPdf');
  const pages = pictures.map((picture, i) => {
    const [first, last] = told.stages[i].strokes;
    return { ...picture, words: said[i], below: `Stage ${i + 1} of ${pictures.length}, strokes ${first} to ${last}` };
  });
  saveFile(fileName(`${title} stages`, 'pdf'), await stagesPdf(title, pages), 'application/pdf');
}
