import { DiffOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { CompareDrawer } from './CompareDrawer';

export const compare: Feature = { id: 'compare', name: 'Compare', icon: <DiffOutlined />, Drawer: CompareDrawer };
