import { describe, expect, it } from 'vitest';
import { masstoneLab } from '@/core/colour/mixture';
import type { Triple } from '@/core/colour/colorimetry';
import { Dinghy } from './dinghy';
import { apart, type Field, inside } from './idea';
import { curve, Hand, type Place } from './hand';
import { Palette } from './palette';
import { alongForm, Planner } from './planner';
import { Idea } from './idea';

const palette = new Palette(['PW6', 'PY43', 'PBr7BS', 'PB29'], 3);

describe('what a painter has in mind', () => {
  it('is filled as far as its outline goes, and keeps its mean when it is blurred', () => {
    const box = inside(20, 12, [
      [4, 3],
      [14, 3],
      [14, 9],
      [4, 9],
    ]);
    const sum = (f: Field) => f.values.reduce((a, b) => a + b, 0);
    expect(sum(box) / 16).toBeCloseTo(60, 0);
    expect(sum(box.blurred(4)) / sum(box)).toBeCloseTo(1, 2);
    expect(box.blurred(4).at(4, 6)).toBeGreaterThan(0.3);
    expect(box.blurred(4).at(4, 6)).toBeLessThan(0.7);
  });

  it('turns strokes along its edges, and leaves them in the wind elsewhere', () => {
    const idea = Idea.of(40, 40, (x): Triple => [x < 20 ? 20 : 80, 0, 0]);
    const lie = alongForm(idea, () => [1, 0]);
    const steep = ([x, y]: Place) => Math.abs(y) / (Math.abs(x) + Math.abs(y));
    expect(steep(lie(20, 20))).toBeGreaterThan(0.6);
    expect(steep(lie(4, 20))).toBeLessThan(0.1);
  });
});

describe('a palette of few tubes', () => {
  it('finds mixtures of the colours that it reaches', () => {
    const random = new Hand(1).random;
    for (const lab of [
      [60, 2, -8],
      [40, 12, 20],
      [85, 2, 12],
      [25, 4, 4],
    ] as const) {
      const made = masstoneLab(palette.mix([...lab], random, 1));
      expect(apart(made, [...lab])).toBeLessThan(4);
    }
  });
});

describe('a hand', () => {
  it('goes through the places that are meant, in time and lightly at the end', () => {
    const through: Place[] = [
      [2, 2],
      [20, 8],
      [38, 4],
    ];
    const places = curve(through);
    for (const p of through)
      expect(Math.min(...places.map((q) => Math.hypot(p[0] - q[0], p[1] - q[1])))).toBeLessThan(1e-9);
    const hand = new Hand(4);
    hand.stroke(through, (s) => 1 - s, 0.3);
    const [stroke] = hand.entries;
    if (stroke.do !== 'stroke') throw new Error('no stroke');
    const times = stroke.samples.map(([t]) => t);
    expect(times.every((t, i) => i === 0 || t > times[i - 1])).toBe(true);
    expect(stroke.samples.at(-1)![3]).toBeLessThan(0.1);
  });
});

describe('a planner', () => {
  it('fills a mass with strokes that end where it ends', () => {
    const hand = new Hand(7);
    const mass = inside(60, 40, [
      [10, 8],
      [50, 8],
      [50, 32],
      [10, 32],
    ]);
    const over = 3;
    new Planner(hand, palette, 60, 40).fill(mass, {
      tools: ['filbert'],
      size: 5,
      length: 20,
      lie: () => [1, 0.1],
      cover: 0.95,
      colour: () => [50, 5, 10],
      over,
    });
    const strokes = hand.entries.filter((e) => e.do === 'stroke');
    expect(strokes.length).toBeGreaterThan(10);
    const covered = new Set<string>();
    for (const { samples } of strokes) {
      for (const [, x, y] of samples) {
        expect(x).toBeGreaterThan(10 - over - 2);
        expect(x).toBeLessThan(50 + over + 2);
        covered.add(`${Math.floor(x / 6)} ${Math.floor(y / 6)}`);
      }
    }
    expect(covered.size).toBeGreaterThan(20);
  });
});

describe('the dinghy', () => {
  it('stands before the horizon, bow to the left, sheer above keel, near side below the far one', () => {
    const boat = new Dinghy([160, 131], 66, [-0.86, -0.5], 7, 1, 0.97);
    for (const [x, y] of boat.outline) {
      expect(x).toBeGreaterThan(60);
      expect(x).toBeLessThan(235);
      expect(y).toBeGreaterThan(66);
    }
    expect(boat.at(1, 1)[0]).toBeLessThan(boat.at(0, 1)[0]);
    expect(boat.at(0.5, 1)[1]).toBeLessThan(boat.at(0.5, 0.05)[1]);
    expect(boat.at(0.5, 1, -1)[1]).toBeLessThan(boat.at(0.5, 1, 1)[1]);
  });
});
