import type { ExportDefinition, Purpose } from './definition';
import { layersOra } from './layers';
import { journalFile, ownFile } from './ownFile';
import { pictureJpeg, webCopy } from './pictureJpeg';
import { picturePng } from './picturePng';
import { pictureTiff } from './pictureTiff';
import { pictureWebp } from './pictureWebp';
import { printPdf } from './printPdf';
import { printProof } from './printProof';
import { recipesCsv, recipesPdf } from './recipes';
import { potsJson, tubesJson } from './toShare';
import { relief3mf, reliefPng, reliefStl } from './relief';

/** All ways to send a painting out, in the order in which they are offered. */
export const EXPORTS = {
  web: webCopy,
  pdf: printPdf,
  file: ownFile,
  ora: layersOra,
  recipes: recipesPdf,
  proof: printProof,
  png: picturePng,
  jpeg: pictureJpeg,
  webp: pictureWebp,
  tiff: pictureTiff,
  journal: journalFile,
  'relief-png': reliefPng,
  stl: reliefStl,
  '3mf': relief3mf,
  'recipes-csv': recipesCsv,
  pots: potsJson,
  tubes: tubesJson,
} satisfies Record<string, ExportDefinition>;

export type ExportId = keyof typeof EXPORTS;
export const EXPORT_IDS = Object.keys(EXPORTS) as ExportId[];
export const isExport = (word: string): word is ExportId => word in EXPORTS;

/** What is offered for a purpose. */
export const exportsFor = (purpose: Purpose): readonly ExportId[] =>
  EXPORT_IDS.filter((id) => (EXPORTS[id] as ExportDefinition).purposes.includes(purpose));
