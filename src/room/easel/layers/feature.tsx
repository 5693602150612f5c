import { MenuOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { addLayer, lookWithout, stepLayer, toggleSketch } from './layerActs';
import { LayersDrawer } from './LayersDrawer';

export const layers: Feature = {
  id: 'layers',
  name: 'Layers',
  icon: <MenuOutlined />,
  Drawer: LayersDrawer,
  keys: [
    { id: 'layer-up', group: 'Layers', says: 'The layer above', keys: ['pageup'], press: () => stepLayer(1) },
    { id: 'layer-down', group: 'Layers', says: 'The layer below', keys: ['pagedown'], press: () => stepLayer(-1) },
    { id: 'layer-new', group: 'Layers', says: 'New layer above', keys: ['n'], press: () => addLayer('above') },
    {
      id: 'layer-new-below',
      group: 'Layers',
      says: 'New layer below',
      keys: ['shift+n'],
      press: () => addLayer('below'),
    },
    { id: 'sketch', group: 'Layers', says: 'Hide the sketch, show it', keys: ['shift+s'], press: toggleSketch },
    { id: 'without', group: 'Layers', says: 'Hold: without this layer', keys: ['b'], hold: lookWithout },
  ],
};
