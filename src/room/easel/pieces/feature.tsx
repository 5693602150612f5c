import { GatewayOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { PieceDrawer } from './PieceDrawer';
import { PieceLayer } from './PieceLayer';
import { usePieces } from './pieceStore';

export const pieces: Feature = {
  id: 'pieces',
  name: 'Pieces',
  icon: <GatewayOutlined />,
  Drawer: PieceDrawer,
  Overlay: PieceLayer,
  release: () => usePieces.getState().set({ way: undefined }),
};
