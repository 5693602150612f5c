import { DiffOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { hold } from '../canvas/holds';
import { CompareDrawer } from './CompareDrawer';
import { useCompare } from './compareStore';

export const compare: Feature = {
  id: 'compare',
  name: 'Compare',
  icon: <DiffOutlined />,
  Drawer: CompareDrawer,
  keys: [
    {
      id: 'compare',
      group: 'Looking',
      says: 'Hold and click: compare two spots',
      keys: ['d'],
      hold: (held) => hold('compare', held),
    },
    {
      id: 'probe',
      group: 'Looking',
      says: 'What the pointer is over, in words',
      keys: ['p'],
      press: () => useCompare.getState().toggleProbe(),
    },
  ],
};
