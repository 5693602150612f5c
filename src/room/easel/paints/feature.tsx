import { ExperimentOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { PaintList } from './PaintList';

export const paints: Feature = { id: 'tubes', name: 'Paint list', icon: <ExperimentOutlined />, Drawer: PaintList };
