import { GatewayOutlined } from '@ant-design/icons';
import { useEasel } from '../easelStore';
import type { Feature, OverCanvas } from '../feature';
import { copyPiece, layCopy } from './clipboard';
import { PieceDrawer } from './PieceDrawer';
import { PieceLayer } from './PieceLayer';
import { RimLayer } from './RimLayer';
import { usePieces } from './pieceStore';

/** What the hand holds, and the rim that the canvas is about to get. */
function OverPieces(over: OverCanvas) {
  return (
    <>
      <PieceLayer {...over} />
      <RimLayer {...over} />
    </>
  );
}

const select = (how: 'all' | 'none') =>
  useEasel.getState().apply({ do: 'select', how, mode: 'new', edgeMm: 0, tolerance: 10, touching: true, byMm: 1 });

export const pieces: Feature = {
  id: 'pieces',
  name: 'Pieces',
  icon: <GatewayOutlined />,
  Drawer: PieceDrawer,
  Overlay: OverPieces,
  keys: [
    { id: 'select-all', group: 'Layers', says: 'Select everything', keys: ['mod+a'], press: () => select('all') },
    {
      id: 'copy',
      group: 'Layers',
      says: 'Copy the layer, or what is selected of it',
      keys: ['y'],
      press: () => void copyPiece(),
    },
    {
      id: 'paste',
      group: 'Layers',
      says: 'Lay the copy onto the layer in hand',
      keys: ['shift+y'],
      press: () => void layCopy(),
    },
    { id: 'select-none', group: 'Layers', says: 'Select nothing', keys: ['mod+d'], press: () => select('none') },
  ],
  busy: () => usePieces.getState().way !== undefined,
  release: () => usePieces.getState().set({ way: undefined }),
};
