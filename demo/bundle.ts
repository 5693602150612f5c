/**
 * Lets the engine paint the demo journal and packs journal, paint and photo into the file that the app opens first:
 * public/demo/low-tide.stigmos. Done when the app is built; nothing is drawn by any other means.
 *   npx tsx demo/bundle.ts
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { encodeStigmosFile } from '@/core/formats/stigmosFile';
import { readJournal, replay } from '@/core/journal/replay';
import { Picture } from '@/core/picture/picture';
import { Pyramid } from '@/core/picture/pyramid';
import { thumbnailPng } from '@/core/formats/thumbnail';

const journal = readJournal(JSON.parse(readFileSync('demo/low-tide.json', 'utf8')));
const studio = replay(journal);
const photo = {
  name: 'Estuary.jpg',
  type: 'image/jpeg',
  bytes: new Uint8Array(readFileSync('public/demo/estuary.jpg')),
};
const picture = new Picture(studio.painting);
const { width, height } = studio.painting;
const pyramid = new Pyramid(picture);
pyramid.update(picture.update({ left: 0, top: 0, right: width, bottom: height }));
const thumbnail = thumbnailPng(pyramid, studio.painting);
const file = encodeStigmosFile(studio, journal.entries, 'Low tide, study 1', [photo], thumbnail);
writeFileSync('public/demo/low-tide.stigmos', file);
console.log(`public/demo/low-tide.stigmos: ${(file.length / 2 ** 20).toFixed(1)} MB`);
