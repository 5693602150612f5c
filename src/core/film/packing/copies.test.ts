import { describe, expect, it } from 'vitest';
import { Arena } from '@/core/film/arena';
import { Copies } from './copies';

describe('copies of planes', () => {
  it('are what was there, each in its own place of one piece of memory', () => {
    const arena = new Arena();
    const plane = arena.allocate(64);
    for (let i = 0; i < 16; i++) arena.f32[(plane >> 2) + i] = i;
    const copies = new Copies(arena, 10);
    const first = copies.plane(plane, 4);
    // two rows of three, four words from row to row
    const second = copies.rectangle((plane >> 2) + 1, 4, 3, 2);
    arena.f32.fill(9, plane >> 2, (plane >> 2) + 16);
    expect([...first]).toEqual([0, 1, 2, 3]);
    expect([...second]).toEqual([1, 2, 3, 5, 6, 7]);
    expect(first.buffer).toBe(second.buffer);
    expect(() => copies.plane(plane, 1)).toThrow(RangeError);
  });
});
