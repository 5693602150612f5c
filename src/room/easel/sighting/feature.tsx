import { AimOutlined, NodeIndexOutlined } from '@ant-design/icons';
import type { Feature, OverCanvas } from '../feature';
import { GuideLayer } from './GuideLayer';
import { GuidesDrawer } from './GuidesDrawer';
import { Lucida } from './Lucida';
import { SightDrawer } from './SightDrawer';
import { SightLayer } from './SightLayer';
import { useSight } from './sightStore';

/** The photo seen through the canvas, and sights over both. */
function Sights({ view, spec, toScreen, toCanvas }: OverCanvas) {
  const width = view.width / window.devicePixelRatio;
  return (
    <>
      <Lucida canvas={spec} toScreen={toScreen} />
      <SightLayer canvas={spec} toScreen={toScreen} toCanvas={toCanvas} name="canvas" width={width} />
    </>
  );
}

export const sighting: Feature = {
  id: 'sighting',
  name: 'Sighting',
  icon: <AimOutlined />,
  Drawer: SightDrawer,
  Overlay: Sights,
  keys: [
    {
      id: 'lucida',
      group: 'Looking',
      says: 'Hold: the photo through the canvas',
      keys: ['g'],
      hold: (held) => useSight.getState().set({ held }),
    },
  ],
  release: () => useSight.getState().choose(undefined),
};

export const guides: Feature = {
  id: 'guides',
  name: 'Guides',
  icon: <NodeIndexOutlined />,
  Drawer: GuidesDrawer,
  Overlay: GuideLayer,
};
