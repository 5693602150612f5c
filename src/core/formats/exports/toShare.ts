import { ownPaint } from '@/core/colour/ownPaints';
import { encodePots } from '@/core/formats/potsFile';
import { recipeBook } from '@/core/formats/recipes/recipeBook';
import { encodeTubeSet } from '@/core/formats/tubeSetFile';
import { PainterError } from '@/core/errors';
import { tubesUsed } from '@/core/picture/tubesUsed';
import { isTube } from '@/core/colour/pigments';
import { defineExport } from './definition';

/** As many pots as stand on the bench. */
const MOST_POTS = 32;

const own = (ids: Iterable<string>) => [...new Set(ids)].flatMap((id) => ownPaint(id) ?? []);
const named = (title: string, otherwise: string) => title.trim().slice(0, 80) || otherwise;

/** The mixtures of a painting as pots that another painter, or another painting, can have on the bench. */
export const potsJson = defineExport({
  label: 'Its mixtures, as a set of pots',
  purposes: ['paint'],
  extension: 'pots.json',
  type: 'application/json',
  settings: {},
  make: ({ plainly, studio, title }) =>
    plainly((picture) => {
      const { recipes } = recipeBook(picture, studio);
      if (recipes.length === 0)
        throw new PainterError('There is no mixture that covers more than half a per cent of it.');
      const most = [...recipes].sort((a, b) => b.share - a.share).slice(0, MOST_POTS);
      const pots = recipes.filter((recipe) => most.includes(recipe)).map(({ mixture }) => ({ name: '', mixture }));
      const paints = own(pots.flatMap(({ mixture }) => Object.keys(mixture)));
      const bytes = new TextEncoder().encode(encodePots({ name: named(title, 'Pots'), pots, paints }));
      return { bytes, says: [`${pots.length} mixtures, in the order in which they were first used.`] };
    }),
});

/** The tubes of a painting as a set, to begin another with. */
export const tubesJson = defineExport({
  label: 'Its tubes, as a set',
  purposes: ['paint'],
  extension: 'tubes.json',
  type: 'application/json',
  settings: {},
  make: ({ plainly, title }) =>
    plainly((picture) => {
      const tubes = tubesUsed(picture).flatMap(({ id }) => (isTube(id) || ownPaint(id) ? [id] : []));
      if (tubes.length === 0) throw new PainterError('There is no paint on it yet.');
      const set = { name: named(title, 'Tubes'), note: 'The tubes of a painting.', tubes, paints: own(tubes) };
      return { bytes: new TextEncoder().encode(encodeTubeSet(set)), says: [`${tubes.length} tubes.`] };
    }),
});
