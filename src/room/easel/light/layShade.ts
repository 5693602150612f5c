import type { Place } from '@/core/study/register';
import type { BorderLine } from '@/core/study/light/shadowBorders';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { cornersOf } from '@/room/easel/silhouette/fillOutline';

/** Steps of a shade: below these shares of the light one more layer of it lies. */
export const SHADES: readonly number[] = [0.75, 0.5, 0.25];
/** How strong each is. */
const STEP_OPACITY = 0.3;
/** How long a new layer may be waited for, ms. */
const PATIENCE_MS = 8000;

/** Resolves with the layer that is painted on once it is another. @throws when none comes */
function newLayer(before: string | undefined): Promise<string> {
  return new Promise((resolve, reject) => {
    const stop = useEasel.subscribe(({ bench }) => {
      if (!bench || bench.activeLayer === before) return;
      stop();
      clearTimeout(timer);
      resolve(bench.activeLayer);
    });
    const timer = setTimeout(() => {
      stop();
      reject(new Error('The layer could not be added.'));
    }, PATIENCE_MS);
  });
}

const areaOf = (line: readonly Place[]): number =>
  line.reduce((sum, a, i) => {
    const b = line[(i + 1) % line.length];
    return sum + (a.x * b.y - b.x * a.y) / 2;
  }, 0);

/** An area of shade, or a hole in one, mm of the canvas. */
interface Area {
  readonly outline: readonly Place[];
  readonly cut: boolean;
}

/** Shade layers, one a step. @throws Error with a sentence */
async function lay(steps: readonly (readonly Area[])[], opacity: number): Promise<void> {
  const { parts, bench, apply } = useEasel.getState();
  const set = mixtureOf(parts);
  const mixture = Object.keys(set).length > 0 ? set : bench?.mixture;
  if (!mixture || Object.keys(mixture).length === 0)
    throw new Error('A shade is laid with a mixture: take a dark one in hand first.');
  for (const [k, areas] of steps.entries()) {
    if (areas.length === 0) continue;
    const added = newLayer(useEasel.getState().bench?.activeLayer);
    apply({ do: 'layer.add', kind: 'tone', blend: 'multiply', name: `Shade ${k + 1}` });
    const layer = await added;
    apply({ do: 'layer.set', layer, opacity });
    // from the largest to the smallest, so that what lies in what is cut out is filled again
    const sorted = [...areas].sort((a, b) => Math.abs(areaOf(b.outline)) - Math.abs(areaOf(a.outline)));
    for (const { outline, cut } of sorted) {
      const shape = { do: 'silhouette', outline: cornersOf(outline), edgeMm: 0, streaks: 0 } as const;
      apply(cut ? { ...shape, cut } : { ...shape, mixture });
    }
  }
}

/** Lays the shade of a board over the canvas. @param shades lines in shares of the width @throws Error with a sentence */
export async function layBoardShade(shades: readonly (readonly BorderLine[])[], widthMm: number): Promise<void> {
  const steps = shades.map((lines) =>
    lines
      .map((line) => line.map(([x, y]) => ({ x: x * widthMm, y: y * widthMm })))
      .filter((outline) => outline.length > 3)
      // what is lighter lies on the right hand: round a shadow that is turned against the clock
      .map((outline) => ({ outline, cut: areaOf(outline) > 0 })),
  );
  if (steps.every((step) => step.length === 0)) throw new Error('There is no shadow on this board.');
  await lay(steps, STEP_OPACITY);
}

/** Lays cast shadows over the canvas. @param strength 0 to 1 @throws Error with a sentence */
export async function layCastShadows(outlines: readonly (readonly Place[])[], strength: number): Promise<void> {
  const areas = outlines.filter((line) => line.length > 2).map((outline) => ({ outline, cut: false }));
  if (areas.length === 0)
    throw new Error('A shadow has an area when its thing has two uprights: pull another beside it.');
  await lay([areas], strength);
}
