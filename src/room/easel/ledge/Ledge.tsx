'use client';
import {
  BgColorsOutlined,
  DiffOutlined,
  DragOutlined,
  HighlightOutlined,
  RedoOutlined,
  UndoOutlined,
} from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { fitView } from '@/room/easel/canvas/viewControl';
import { useEasel } from '@/room/easel/easelStore';
import { redo, undo } from '@/room/easel/hand/handActs';
import { HoldButton } from './HoldButton';
import { LayerChip } from './LayerChip';
import { Limits } from './Limits';
import styles from './ledge.module.css';

/** The ledge under the canvas, where the other hand rests: what is held, and what the hand paints on and within. */
export function Ledge() {
  const canUndo = useEasel((s) => s.bench?.canUndo ?? false);
  const canRedo = useEasel((s) => s.bench?.canRedo ?? false);
  const zoom = useEasel((s) => s.view.zoom);
  const fit = () => {
    const { opened, view, look } = useEasel.getState();
    if (opened) look(fitView({ ...view, turn: 0 }, opened.width, opened.height));
  };
  return (
    <section className={styles.ledge} aria-label="Ledge">
      <div className={styles.holds} role="group" aria-label="Hold while the other hand works">
        <HoldButton what="sample" name="Sample" hint="Hold and touch: sample (S)" icon={<BgColorsOutlined />} />
        <HoldButton what="blend" name="Blend" hint="Hold: the tool in hand blends (X)" icon={<HighlightOutlined />} />
        <HoldButton
          what="compare"
          name="Compare"
          hint="Hold and touch: compare two spots (D)"
          icon={<DiffOutlined />}
        />
        <HoldButton what="view" name="Move" hint="Hold and drag: move the view (Space)" icon={<DragOutlined />} />
      </div>
      <div className={styles.holds} role="group" aria-label="Undo and redo">
        <Tooltip title="Undo (Ctrl Z)">
          <Button type="text" icon={<UndoOutlined />} aria-label="Undo" disabled={!canUndo} onClick={undo} />
        </Tooltip>
        <Tooltip title="Redo (Ctrl Shift Z)">
          <Button type="text" icon={<RedoOutlined />} aria-label="Redo" disabled={!canRedo} onClick={redo} />
        </Tooltip>
      </div>
      <LayerChip />
      <Limits />
      <Tooltip title="See the whole canvas (F)">
        <Button type="text" className="fact" onClick={fit}>
          {Math.round(zoom * 100)} % · fit
        </Button>
      </Tooltip>
    </section>
  );
}
