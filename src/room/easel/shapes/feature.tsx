import { BorderOuterOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { useDrawn } from './drawnStore';
import { ShapesDrawer } from './ShapesDrawer';
import { ShapesLayer } from './ShapesLayer';

export const shapes: Feature = {
  id: 'shapes',
  name: 'Shapes',
  icon: <BorderOuterOutlined />,
  Drawer: ShapesDrawer,
  Overlay: ShapesLayer,
  busy: () => useDrawn.getState().kind !== undefined,
  release: () => useDrawn.getState().set({ kind: undefined }),
};
