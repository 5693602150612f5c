import type { Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import type { LayersRead } from '@/core/formats/layered/readOpenRaster';
import { useEasel } from '@/room/easel/easelStore';
import { packed } from './pictureIn';

/** Longest wait for a layer that was asked for, ms. */
const PATIENCE_MS = 20_000;
/** On top of everything. */
const TOP = 1000;

/**
 * Hangs the layers of a file over those that are there, in their groups.
 * @param apply does a command, @param made does one that makes a layer, and says which
 */
export async function layersIn(
  { width: widthPx, height: heightPx, layers, groups }: LayersRead,
  apply: (command: Command) => void,
  made: (command: Command) => Promise<string>,
): Promise<void> {
  const ids: string[] = [];
  for (const { name, rgba, blend, opacity, visible, group } of layers) {
    // groups come before what lies in them, the lowest first, as layers do
    for (let next = ids.length; group !== undefined && next <= group; next++) {
      const { name: called, within, opacity: share, visible: shown } = groups[next];
      const layer = await made({ do: 'layer.add', kind: 'group', name: called });
      ids.push(layer);
      apply({ do: 'layer.move', layer, to: TOP, group: within === undefined ? null : ids[within] });
      apply({ do: 'layer.set', layer, opacity: share, visible: shown });
    }
    const layer = await made({
      do: 'layer.picture',
      name,
      widthPx,
      heightPx,
      rgba: packed(rgba),
      fit: 'whole',
      blend,
      opacity,
    });
    if (group !== undefined) apply({ do: 'layer.move', layer, to: TOP, group: ids[group] });
    if (!visible) apply({ do: 'layer.set', layer, visible: false });
  }
}

/** Does a command that makes a layer, and waits for it. @returns its id @throws PainterError when none came */
export function madeLayer(command: Command): Promise<string> {
  const before = new Set(useEasel.getState().bench?.layers.map(({ id }) => id));
  return new Promise((found, fail) => {
    const stop = useEasel.subscribe(({ bench }) => {
      const layer = bench?.layers.find(({ id }) => !before.has(id));
      if (!layer) return;
      end();
      found(layer.id);
    });
    const timer = setTimeout(() => {
      end();
      fail(new PainterError('The layers could not all be taken over: the painting has no room for more.'));
    }, PATIENCE_MS);
    const end = () => {
      clearTimeout(timer);
      stop();
    };
    useEasel.getState().apply(command);
  });
}
