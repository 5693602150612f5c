'use client';
import { Drawer } from 'antd';
import { useEasel } from '@/room/easel/easelStore';
import { KEY_ACTS } from './keyActs';
import { KeyList } from './KeyList';

/** All keys over the easel; the painting stays where it is. */
export function KeysPanel() {
  const open = useEasel((s) => s.panel === 'keys');
  return (
    <Drawer
      title="Keys"
      placement="right"
      size={720}
      open={open}
      destroyOnHidden
      onClose={() => useEasel.getState().set({ panel: null })}
    >
      <KeyList acts={KEY_ACTS} />
    </Drawer>
  );
}
