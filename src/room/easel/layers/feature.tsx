import { MenuOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { LayersDrawer } from './LayersDrawer';

export const layers: Feature = { id: 'layers', name: 'Layers', icon: <MenuOutlined />, Drawer: LayersDrawer };
