'use client';
import {
  AimOutlined,
  BulbOutlined,
  DiffOutlined,
  ExperimentOutlined,
  HistoryOutlined,
  MenuOutlined,
  NodeIndexOutlined,
  HighlightOutlined,
  GatewayOutlined,
} from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { LampDrawer } from '@/room/easel/lamp/LampDrawer';
import { LayersDrawer } from '@/room/easel/layers/LayersDrawer';
import { CompareDrawer } from '@/room/easel/compare/CompareDrawer';
import { ShapeDrawer } from '@/room/easel/silhouette/ShapeDrawer';
import { useShape } from '@/room/easel/silhouette/shapeStore';
import { GuidesDrawer } from '@/room/easel/sighting/GuidesDrawer';
import { SightDrawer } from '@/room/easel/sighting/SightDrawer';
import { PieceDrawer } from '@/room/easel/pieces/PieceDrawer';
import { usePieces } from '@/room/easel/pieces/pieceStore';
import { PaintList } from '@/room/easel/paints/PaintList';
import { JournalDrawer } from '@/room/easel/journal/JournalDrawer';
import { useEasel, type Drawer } from './easelStore';
import { useSight } from '@/room/easel/sighting/sightStore';
import styles from './easel.module.css';

const DRAWERS: { id: Exclude<Drawer, null>; name: string; icon: React.ReactNode }[] = [
  { id: 'layers', name: 'Layers', icon: <MenuOutlined /> },
  { id: 'pieces', name: 'Pieces', icon: <GatewayOutlined /> },
  { id: 'sighting', name: 'Sighting', icon: <AimOutlined /> },
  { id: 'guides', name: 'Guides', icon: <NodeIndexOutlined /> },
  { id: 'silhouette', name: 'Silhouette', icon: <HighlightOutlined /> },
  { id: 'lamp', name: 'Lamp', icon: <BulbOutlined /> },
  { id: 'compare', name: 'Compare', icon: <DiffOutlined /> },
  { id: 'tubes', name: 'Paint list', icon: <ExperimentOutlined /> },
  { id: 'journal', name: 'Journal', icon: <HistoryOutlined /> },
];

/** The spine at the right edge: opens one drawer at a time. */
export function Spine() {
  const drawer = useEasel((s) => s.drawer);
  const set = useEasel((s) => s.set);
  return (
    <>
      {drawer && (
        <section className={styles.drawer} aria-label={DRAWERS.find((d) => d.id === drawer)!.name}>
          {drawer === 'layers' && <LayersDrawer />}
          {drawer === 'pieces' && <PieceDrawer />}
          {drawer === 'sighting' && <SightDrawer />}
          {drawer === 'guides' && <GuidesDrawer />}
          {drawer === 'silhouette' && <ShapeDrawer />}
          {drawer === 'lamp' && <LampDrawer />}
          {drawer === 'compare' && <CompareDrawer />}
          {drawer === 'tubes' && <PaintList />}
          {drawer === 'journal' && <JournalDrawer />}
        </section>
      )}
      <nav className={styles.spine} aria-label="Drawers">
        {DRAWERS.map(({ id, name, icon }) => (
          <Tooltip key={id} title={drawer === id ? '' : name} placement="left" mouseEnterDelay={0.4}>
            <Button
              type={drawer === id ? 'primary' : 'text'}
              size="middle"
              icon={icon}
              aria-label={name}
              aria-expanded={drawer === id}
              onClick={() => {
                useSight.getState().choose(undefined);
                useShape.getState().set({ way: undefined });
                usePieces.getState().set({ way: undefined });
                set({ drawer: drawer === id ? null : id });
              }}
            />
          </Tooltip>
        ))}
      </nav>
    </>
  );
}
