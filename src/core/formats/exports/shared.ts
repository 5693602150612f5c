import { SPACES } from '@/core/formats/pictures/iccProfile';
import { SHOWN } from '@/core/formats/pictures/pictureOf';

/** Settings that several ways out share. */
const { lit, unlit } = SHOWN;
export const litOrNot = { kind: 'choice', label: 'Shown', choices: { lit, unlit }, first: 'lit' } as const;
export const shown = { kind: 'choice', label: 'Shown', choices: SHOWN, first: 'lit' } as const;
export const space = { kind: 'choice', label: 'Colour space', choices: SPACES, first: 'srgb' } as const;
export const depth = {
  kind: 'choice',
  label: 'Depth',
  choices: { 8: '8 bit', 16: '16 bit, from the film' },
  first: '8',
} as const;
export const quality = { kind: 'number', label: 'Quality', least: 1, most: 100, step: 1, first: 92 } as const;

export const bits = (chosen: string): 8 | 16 => (chosen === '16' ? 16 : 8);
