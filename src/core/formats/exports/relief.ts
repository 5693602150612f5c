import { encodePng } from '@/core/formats/png';
import { reliefOf, reliefUm } from '@/core/formats/solids/reliefOf';
import { reliefSolid, type Solid } from '@/core/formats/solids/reliefSolid';
import { encodeStl } from '@/core/formats/solids/stl';
import { encode3mf } from '@/core/formats/solids/threeMf';
import { defineExport, type SentOut } from './definition';
import type { Chosen } from './settings';

const CODES = 65535;

export const reliefPng = defineExport({
  label: 'Height of the relief, PNG 16 bit',
  purposes: ['program'],
  extension: 'png',
  type: 'image/png',
  settings: {},
  make: ({ plainly, ppi }) =>
    plainly((picture) => {
      const { width, height } = picture.painting;
      const um = reliefUm(picture);
      let [low, high] = [Infinity, -Infinity];
      for (const v of um) [low, high] = [Math.min(low, v), Math.max(high, v)];
      const step = (high - low) / CODES || 1;
      const data = Uint16Array.from(um, (v) => Math.round((v - low) / step));
      return {
        bytes: encodePng({ width, height, channels: 1, data }, ppi),
        px: [width, height] as const,
        says: [
          `Black is the lowest point; white lies ${Math.round(high - low)} µm above it; one step is ${step.toPrecision(3)} µm.`,
        ],
      };
    }),
});

const settings = {
  width: { kind: 'number', label: 'Width', unit: 'mm', least: 10, most: 2000, step: 1, first: 150 },
  times: { kind: 'number', label: 'Heights exaggerated', unit: 'times', least: 1, most: 500, step: 1, first: 10 },
  base: { kind: 'number', label: 'Base', unit: 'mm', least: 0.2, most: 50, step: 0.2, first: 2 },
  points: { kind: 'number', label: 'Points across', least: 16, most: 1500, step: 1, first: 400 },
} as const;

const solidOf = ({ plainly }: SentOut, { width, times, base, points }: Chosen<typeof settings>): Solid =>
  plainly((picture) => reliefSolid(reliefOf(picture, Math.round(points), width, times), base));

const saysOf = ({ triangles }: Solid) => [`${(triangles.length / 3).toLocaleString('en')} triangles.`];

export const reliefStl = defineExport({
  label: 'Relief as a solid, STL',
  purposes: ['program'],
  extension: 'stl',
  type: 'model/stl',
  settings,
  make(from, chosen) {
    const solid = solidOf(from, chosen);
    return { bytes: encodeStl(solid), says: saysOf(solid) };
  },
});

export const relief3mf = defineExport({
  label: 'Relief as a solid, 3MF',
  purposes: ['program'],
  extension: '3mf',
  type: 'model/3mf',
  settings,
  make(from, chosen) {
    const solid = solidOf(from, chosen);
    return { bytes: encode3mf(solid), says: saysOf(solid) };
  },
});
