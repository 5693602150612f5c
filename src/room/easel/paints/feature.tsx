import { ExperimentOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { CoreDrawer } from '../core/CoreDrawer';
import { CoreLayer } from '../core/CoreLayer';
import { useCore } from '../core/coreStore';
import { PaintList } from './PaintList';

/** What paint there is: of which tubes, and what lies on what. */
function PaintDrawer() {
  return (
    <>
      <CoreDrawer />
      <PaintList />
    </>
  );
}

export const paints: Feature = {
  id: 'tubes',
  name: 'Paint list',
  icon: <ExperimentOutlined />,
  Drawer: PaintDrawer,
  Overlay: CoreLayer,
  busy: () => useCore.getState().on,
  release: () => useCore.setState({ on: false }),
};
