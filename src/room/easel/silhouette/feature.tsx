import { HighlightOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { ShapeDrawer } from './ShapeDrawer';
import { ShapeLayer } from './ShapeLayer';
import { useShape } from './shapeStore';

export const silhouette: Feature = {
  id: 'silhouette',
  name: 'Silhouette',
  icon: <HighlightOutlined />,
  Drawer: ShapeDrawer,
  Overlay: ShapeLayer,
  busy: () => useShape.getState().way !== undefined,
  release: () => useShape.getState().set({ way: undefined }),
};
