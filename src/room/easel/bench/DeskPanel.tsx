'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Drawer } from 'antd';
import { useEffect } from 'react';
import { DeskHandContext, type DeskHand } from '@/room/desk/deskHand';
import { DeskTop } from '@/room/desk/DeskTop';
import { usePalette } from '@/room/colour/paletteStore';
import { setOutWaiting, useEasel } from '@/room/easel/easelStore';
import styles from './bench.module.css';

const close = () => useEasel.getState().set({ panel: null });

/** What is chosen goes onto the brush at once; what is set out, onto the slab. */
const HAND: DeskHand = {
  take: (parts) => useEasel.getState().loadMixture(parts),
  setOut(mixtures) {
    usePalette.getState().setOut(mixtures);
    setOutWaiting();
    close();
  },
};

/** The mixing desk over the easel: the painting stays open under it, with all its steps. */
export function DeskPanel() {
  const open = useEasel((s) => s.panel === 'desk');
  const painting = useEasel((s) => s.painting);
  // what lies on the bench before anything was chosen is in hand at the desk too
  useEffect(() => {
    const { parts, keepParts } = usePalette.getState();
    if (open && !parts) keepParts(useEasel.getState().parts);
  }, [open]);
  return (
    <Drawer
      rootClassName={styles.deskPanel}
      placement="top"
      size="calc(100vh - 150px)"
      mask={false}
      closable={false}
      open={open}
      destroyOnHidden
      onClose={close}
      aria-label="Mixing desk"
    >
      <DeskHandContext value={HAND}>
        <DeskTop
          painting={painting}
          heading={<h2>Mixing desk</h2>}
          back={<Button type="text" icon={<CloseOutlined />} aria-label="Close the mixing desk" onClick={close} />}
        />
      </DeskHandContext>
    </Drawer>
  );
}
