import { BulbOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { LampDrawer } from './LampDrawer';

export const lamp: Feature = { id: 'lamp', name: 'Lamp', icon: <BulbOutlined />, Drawer: LampDrawer };
