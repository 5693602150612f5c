import { defineExport } from './definition';

export const ownFile = defineExport({
  label: 'Painting file (.stigmos), with strokes and photos',
  purposes: ['keep'],
  extension: 'stigmos',
  type: 'application/zip',
  whole: true,
  settings: {
    paint: {
      kind: 'choice',
      label: 'Its paint',
      choices: { whole: 'All of it: opens at once', strokes: 'Strokes alone: small, painted again' },
      first: 'whole',
    },
  },
  make: async ({ paintingFile, step }, { paint }) => ({
    bytes: await paintingFile(paint === 'strokes', step),
    ...(paint === 'strokes' && { says: ['When it is opened it is painted again, stroke by stroke.'] }),
  }),
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
