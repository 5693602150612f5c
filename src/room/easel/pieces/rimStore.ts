'use client';
import { create } from 'zustand';

/** More canvas at each side, mm; below 0 less. */
export interface Rim {
  readonly topMm: number;
  readonly leftMm: number;
  readonly rightMm: number;
  readonly bottomMm: number;
}
export const AS_IT_IS: Rim = { topMm: 0, leftMm: 0, rightMm: 0, bottomMm: 0 };

/** The rim that the canvas is about to get: typed in, or pulled over the canvas. */
export const useRim = create<{ readonly shown: boolean; readonly by: Rim }>(() => ({ shown: false, by: AS_IT_IS }));

/** Least that is left of a canvas, mm. */
const LEAST_MM = 5;

/** The rim after one side is pulled to a place, whole mm. @param at mm on the canvas, across for left and right */
export function pulled(by: Rim, side: keyof Rim, at: number, size: { widthMm: number; heightMm: number }): Rim {
  const across = side === 'leftMm' || side === 'rightMm';
  const whole = across ? size.widthMm : size.heightMm;
  const first = side === 'leftMm' || side === 'topMm';
  const other = across ? (first ? by.rightMm : by.leftMm) : first ? by.bottomMm : by.topMm;
  const mm = Math.round(first ? -at : at - whole);
  return { ...by, [side]: Math.min(2000, Math.max(mm, LEAST_MM - whole - other)) };
}
