import { defineExport } from './definition';

export const ownFile = defineExport({
  label: 'Painting file (.stigmos), with strokes and photos',
  purposes: ['keep'],
  extension: 'stigmos',
  type: 'application/zip',
  whole: true,
  settings: {},
  make: async ({ paintingFile }) => ({ bytes: await paintingFile() }),
});

export const journalFile = defineExport({
  label: 'Journal, all strokes as text',
  purposes: ['keep'],
  extension: 'json',
  type: 'application/json',
  settings: {},
  make({ studio }) {
    const journal = { format: 'stigmos-journal', version: 1, painting: studio.begun, entries: studio.history };
    return { bytes: new TextEncoder().encode(JSON.stringify(journal)) };
  },
});
