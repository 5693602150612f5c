import { describe, expect, it } from 'vitest';
import { readCgats } from './cgats';
import { textOf } from './textOf';
import { writeCgats } from './cgats';

const utf16 = (text: string, little: boolean, mark: boolean) => {
  const bytes = new Uint8Array(2 * (text.length + (mark ? 1 : 0)));
  const view = new DataView(bytes.buffer);
  [...(mark ? '\uFEFF' : ''), ...text].forEach((c, i) => view.setUint16(2 * i, c.charCodeAt(0), little));
  return bytes;
};

describe('text of a file', () => {
  const sample = { name: 'Mud, masstone', wavelengths: [400, 500, 600], reflectance: [0.1, 0.2, 0.3] };
  const text = writeCgats([sample], 'Mud – a tint', new Date(0));

  it.each([
    ['UTF-8', new TextEncoder().encode(text)],
    ['UTF-8 with a mark', new TextEncoder().encode('\uFEFF' + text)],
    ['UTF-16, little end first', utf16(text, true, true)],
    ['UTF-16, big end first', utf16(text, false, true)],
    ['UTF-16, little end first, without a mark', utf16(text, true, false)],
    ['UTF-16, big end first, without a mark', utf16(text, false, false)],
  ])('in %s is read', (_, bytes) => {
    expect(textOf(bytes)).toBe(text);
    expect(readCgats(textOf(bytes))[0].reflectance).toEqual(sample.reflectance);
  });

  it('of a byte or two is no fault', () => {
    expect(textOf(new Uint8Array(0))).toBe('');
    expect(textOf(Uint8Array.of(65))).toBe('A');
  });
});
