import { HourglassOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { YearsDrawer } from './YearsDrawer';

export const years: Feature = { id: 'years', name: 'Years', icon: <HourglassOutlined />, Drawer: YearsDrawer };
