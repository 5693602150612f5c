'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { RackShelves } from '@/room/colour/RackShelves';
import { SetPlan } from '@/room/colour/SetPlan';
import { useEasel } from '@/room/easel/easelStore';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** The tube rack, laid over the lower part of the view. */
export function TubeRack() {
  const open = useEasel((s) => s.panel === 'rack');
  const togglePanel = useEasel((s) => s.togglePanel);
  if (!open) return null;
  return (
    <section className={easel.roll} aria-label="Tube rack">
      <header>
        <h2>Tube rack</h2>
        <span className={easel.spring} />
        <Button type="text" icon={<CloseOutlined />} aria-label="Close the rack" onClick={() => togglePanel('rack')} />
      </header>
      <div className={styles.rackBody}>
        <RackShelves />
        <SetPlan />
      </div>
    </section>
  );
}
