'use client';
import { create } from 'zustand';
import type { EngineClient } from '@/engine/client';
import type { BenchState } from '@/engine/protocol';
import type { PieceShown } from '@/engine/questions';

export type Corner = [x: number, y: number];
/** What the hand does over the canvas: selects, moves a piece, fills, repeats; nothing while one paints. */
export type PieceWay =
  'rectangle' | 'ellipse' | 'lasso' | 'polygon' | 'colour' | 'free' | 'corners' | 'mesh' | 'fill' | 'stamp' | undefined;
export const SELECTS: readonly PieceWay[] = ['rectangle', 'ellipse', 'lasso', 'polygon', 'colour'];
export const MOVES: readonly PieceWay[] = ['free', 'corners', 'mesh'];
export type SelectMode = 'new' | 'add' | 'subtract' | 'within';

/** Points of a mesh along each side. */
export const MESH_SIDE = 4;

/** How long an outline flashes, ms. */
const FLASH_MS = 1400;

/** A piece that is being moved: how it looks, and where its corners (or the points of its mesh) have come to. */
export interface Moving {
  readonly piece: PieceShown;
  readonly image: ImageBitmap;
  /** Clockwise from the upper left. */
  readonly corners: readonly Corner[];
  readonly mesh: readonly Corner[];
}

interface PieceState {
  way: PieceWay;
  mode: SelectMode;
  edgeMm: number;
  tolerance: number;
  touching: boolean;
  byMm: number;
  fillBy: 'colour' | 'lines';
  gapMm: number;
  growMm: number;
  turnJitter: number;
  sizeJitter: number;
  size: number;
  /** Whether what is moved stays where it was as well. */
  copy: boolean;
  moving: Moving | undefined;
  /** Layers that are moved along with the one in hand. */
  along: readonly string[];
  /** Outlines of the selection, and of what a layer has that was just chosen, mm. */
  selection: readonly (readonly Corner[])[];
  flashed: readonly (readonly Corner[])[];
  set: (changes: Partial<Omit<PieceState, 'set' | 'flash' | 'lift' | 'drop'>>) => void;
  /** Shows for a moment where a layer has something. */
  flash: (engine: EngineClient, layer: string) => Promise<void>;
  /** Lifts layers, or what is selected of them, to be moved. @returns whether there was anything */
  lift: (engine: EngineClient, layers: readonly string[]) => Promise<boolean>;
  drop: () => void;
}

/** Longest side of a lifted piece as it is shown, pixels. */
const SHOWN_PX = 1400;

const cornersOf = ({ box: { left, top, right, bottom } }: PieceShown): Corner[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];

/** The layers that are moved: the one in hand, and those that go along as far as they are still there. */
export const movedLayers = (
  { activeLayer, layers }: Pick<BenchState, 'activeLayer' | 'layers'>,
  along: readonly string[],
): string[] => [activeLayer, ...layers.map(({ id }) => id).filter((id) => id !== activeLayer && along.includes(id))];

/** A mesh that lies straight over four corners. */
export const meshOver = ([a, b, c, d]: readonly Corner[]): Corner[] =>
  Array.from({ length: MESH_SIDE * MESH_SIDE }, (_, i) => {
    const [u, v] = [(i % MESH_SIDE) / (MESH_SIDE - 1), Math.floor(i / MESH_SIDE) / (MESH_SIDE - 1)];
    const mix = (k: 0 | 1) => (a[k] * (1 - u) + b[k] * u) * (1 - v) + (d[k] * (1 - u) + c[k] * u) * v;
    return [mix(0), mix(1)];
  });

let flashing = 0;
let lifting = 0;

export const usePieces = create<PieceState>((set, get) => ({
  way: undefined,
  mode: 'new',
  edgeMm: 0,
  tolerance: 10,
  touching: true,
  byMm: 1,
  fillBy: 'colour',
  gapMm: 1,
  growMm: 0.3,
  turnJitter: 20,
  sizeJitter: 0.15,
  size: 1,
  copy: false,
  moving: undefined,
  along: [],
  selection: [],
  flashed: [],
  set,
  async flash(engine, layer) {
    const mine = ++flashing;
    const flashed = await engine.ask({ of: 'outlines', layer }).catch(() => []);
    if (mine !== flashing) return;
    set({ flashed });
    setTimeout(() => mine === flashing && set({ flashed: [] }), FLASH_MS);
  },
  async lift(engine, layers) {
    const mine = ++lifting;
    const piece = await engine.ask({ of: 'piece', layers, most: SHOWN_PX }).catch(() => null);
    if (mine !== lifting) return true;
    if (!piece) return false;
    const image = await createImageBitmap(new ImageData(piece.rgba, piece.width, piece.height));
    get().moving?.image.close();
    const corners = cornersOf(piece);
    set({ moving: { piece, image, corners, mesh: meshOver(corners) } });
    return true;
  },
  drop() {
    lifting++;
    get().moving?.image.close();
    set({ moving: undefined });
  },
}));
