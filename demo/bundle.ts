/**
 * Lets the engine paint the demo journals and packs journal, paint and photo into the files that the app opens:
 * public/demo/*.stigmos. Done when the app is built; nothing is drawn by any other means.
 *   npx tsx demo/bundle.ts
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { readJournal, replay } from '@/core/journal/replay';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { thumbnailPng } from '@/core/formats/thumbnail';

const photo = {
  name: 'Estuary.jpg',
  type: 'image/jpeg',
  bytes: new Uint8Array(readFileSync('public/demo/estuary.jpg')),
};

for (const [from, to, title] of [
  ['demo/low-tide.json', 'low-tide', 'Low tide, study 1'],
  ['demo/studies/alla-prima.json', 'alla-prima', 'Low tide, alla prima'],
  ['demo/studies/glazed.json', 'glazed', 'Low tide, glazed'],
  ['demo/studies/knife.json', 'knife', 'Low tide, with the knife'],
] as const) {
  const journal = readJournal(JSON.parse(readFileSync(from, 'utf8')));
  const studio = replay(journal);
  const picture = new Picture(studio.painting);
  const { width, height } = studio.painting;
  const pyramid = new Pyramid(picture);
  pyramid.update(picture.update({ left: 0, top: 0, right: width, bottom: height }));
  const file = encodeStigmosFile(studio, journal.entries, title, [photo], thumbnailPng(pyramid, studio.painting));
  writeFileSync(`public/demo/${to}.stigmos`, file);
  console.log(`public/demo/${to}.stigmos: ${(file.length / 2 ** 20).toFixed(1)} MB`);
}
