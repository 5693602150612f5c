import type { ExportDefinition } from './definition';

export const ownFile: ExportDefinition = {
  label: 'Painting file (.stigmos), with strokes and photos',
  extension: 'stigmos',
  type: 'application/zip',
  whole: true,
  make: ({ paintingFile }) => paintingFile(),
};
