import type { ComponentType, ReactNode } from 'react';
import type { PaintingSpec } from '@/core/film/painting';
import type { View } from '@/core/picture/view';
import type { Place } from '@/core/study/register';
import type { KeyAct } from './keys/keyAct';

/** Where things lie that are drawn over the canvas. */
export interface OverCanvas {
  readonly view: View;
  readonly spec: PaintingSpec;
  /** From mm on the canvas to CSS pixels of the view, and back. */
  readonly toScreen: (at: Place) => Place;
  readonly toCanvas: (at: Place) => Place;
}

/** Something that the easel can do beside painting. Spine, overlays and what is let go loop over the list of all. */
export interface Feature {
  readonly id: string;
  readonly name: string;
  /** Its button on the spine, and the drawer that it opens. */
  readonly icon: ReactNode;
  readonly Drawer: ComponentType;
  /** What it draws over the canvas. */
  readonly Overlay?: ComponentType<OverCanvas>;
  /** What keys do with it. */
  readonly keys?: readonly KeyAct[];
  /** Whether the hand does something with it, so that it does not paint. */
  readonly busy?: () => boolean;
  /** Puts down what the hand does with it, so that the hand paints again. */
  readonly release?: () => void;
}
