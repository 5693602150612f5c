'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Drawer } from 'antd';
import type { ReactNode } from 'react';
import { useEasel, type Panel } from './easelStore';
import styles from './overPanel.module.css';

const close = () => useEasel.getState().set({ panel: null });

/** A panel that lies over all of the easel but the sill: with a head, and what is done on it. */
export function OverPanel({ of, name, children }: { of: Panel; name: string; children: ReactNode }) {
  const open = useEasel((s) => s.panel === of);
  return (
    <Drawer
      rootClassName={styles.panel}
      placement="top"
      size="calc(100vh - 60px)"
      mask={false}
      closable={false}
      open={open}
      destroyOnHidden
      onClose={close}
      aria-label={name}
    >
      {children}
    </Drawer>
  );
}

/** The head of such a panel: its name, what belongs beside it, and the way out. */
export function PanelHead({ name, children }: { name: string; children?: ReactNode }) {
  return (
    <header className={styles.head}>
      <h2>{name}</h2>
      {children}
      <Button type="text" icon={<CloseOutlined />} aria-label="Close" onClick={close} />
    </header>
  );
}
