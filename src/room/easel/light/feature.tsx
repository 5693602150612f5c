import { SunOutlined } from '@ant-design/icons';
import { useEasel } from '@/room/easel/easelStore';
import type { Feature, OverCanvas } from '@/room/easel/feature';
import { LightBoard } from './LightBoard';
import { LightDrawer } from './LightDrawer';
import { useLight } from './lightStore';
import { PerspectiveLayer } from './PerspectiveLayer';

const ID = 'light';

/** The board while its drawer is open, or as a guide for as long as it stays. */
function LightOver(over: OverCanvas) {
  const drawn = useEasel((s) => s.drawer === ID);
  const { stays, mode } = useLight();
  if (!drawn && !stays) return null;
  return mode === 'perspective' ? <PerspectiveLayer {...over} drawn={drawn} /> : <LightBoard {...over} drawn={drawn} />;
}

export const light: Feature = {
  id: ID,
  name: 'Light study',
  icon: <SunOutlined />,
  Drawer: LightDrawer,
  Overlay: LightOver,
  busy: () => {
    const { act, setting } = useLight.getState();
    return act !== undefined || setting !== undefined;
  },
  release: () => useLight.getState().set({ act: undefined, setting: undefined, sight: undefined }),
};
