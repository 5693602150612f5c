import { pieceSchema, type Piece } from '@/core/commands/families/pasting';
import { ownPaint } from '@/core/colour/ownPaints';
import { PainterError } from '@/core/errors';
import { z } from '@/core/schema';
import { kept } from '@/engine/keeping/kept';
import { usePalette } from '@/room/colour/paletteStore';
import { useEasel } from '@/room/easel/easelStore';

/** The piece that was copied last, for this painting or another, in this tab or another. */
const copied = kept({
  store: 'clipboard',
  key: 'piece',
  version: 1,
  schema: z.object({ piece: pieceSchema, painting: z.string() }),
});

/** The same, for as long as this page is open: where the browser has no room to keep it. */
let here: { readonly piece: Piece; readonly painting: string } | undefined;

const refuse = (error: unknown) =>
  useEasel.setState({ refused: error instanceof PainterError ? error.message : 'That could not be copied.' });

/** Copies what is on the layer in hand, or what is selected of it. */
export async function copyPiece(): Promise<void> {
  const { engine, painting } = useEasel.getState();
  if (!engine) return;
  try {
    here = { piece: await engine.ask({ of: 'copy' }), painting };
    await copied.write(here).catch(() => {});
  } catch (error) {
    refuse(error);
  }
}

/** Lays what was copied onto the layer in hand: where it was on its own painting, in the middle of the view on another. */
export async function layCopy(): Promise<void> {
  const found = (await copied.read()) ?? here;
  const { opened, view, painting, apply } = useEasel.getState();
  if (!opened) return;
  if (!found) {
    useEasel.setState({ refused: 'Nothing has been copied yet.' });
    return;
  }
  const { piece } = found;
  // own paints travel along
  for (const { id } of piece.own) {
    const paint = ownPaint(id);
    if (paint) usePalette.getState().bring({ [id]: 1 });
  }
  const mm = (cells: number) => Math.round(cells * (25.4 / opened.spec.ppi) * 100) / 100;
  const at: [number, number] = [mm(view.centreX), mm(view.centreY)];
  apply({ do: 'paste', piece, ...(found.painting === painting ? {} : { at }) });
}
