import type { ExportDefinition } from './definition';
import { ownFile } from './ownFile';
import { litPng, unlitPng } from './picturePng';

/** All ways to send a painting out, in the order in which they are offered. */
export const EXPORTS = {
  png: litPng,
  'png-unlit': unlitPng,
  file: ownFile,
} satisfies Record<string, ExportDefinition>;

export type ExportId = keyof typeof EXPORTS;
