import { HistoryOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { JournalDrawer } from './JournalDrawer';

export const journal: Feature = { id: 'journal', name: 'Journal', icon: <HistoryOutlined />, Drawer: JournalDrawer };
