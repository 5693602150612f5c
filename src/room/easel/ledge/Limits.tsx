'use client';
import { CloseOutlined } from '@ant-design/icons';
import { Button, Popover } from 'antd';
import { HouseRulesForm } from '@/room/colour/HouseRulesForm';
import { usePalette } from '@/room/colour/paletteStore';
import { mirrored, turnAt } from '@/room/easel/canvas/viewControl';
import { useEasel } from '@/room/easel/easelStore';
import { guideInUse, useSight } from '@/room/easel/sighting/sightStore';
import { LIMITS, type Ends } from './limits';
import styles from './ledge.module.css';

const ENDS: Ends = {
  setLayer(look) {
    const { bench, apply } = useEasel.getState();
    if (bench) apply({ do: 'layer.set', layer: bench.activeLayer, ...look });
  },
  selectNone: () =>
    useEasel
      .getState()
      .apply({ do: 'select', how: 'none', mode: 'new', edgeMm: 0, tolerance: 10, touching: true, byMm: 1 }),
  freeHand: () => useSight.getState().change({ guide: undefined }),
  steady: (steady) => useSight.getState().change({ steady }),
  mirror() {
    const { view, look } = useEasel.getState();
    look(mirrored(view));
  },
  straighten() {
    const { view, look } = useEasel.getState();
    look(turnAt(view, -view.turn, view.width / 2, view.height / 2));
  },
  noAid() {
    const { aid, toggleAid } = useEasel.getState();
    if (aid !== 'none') toggleAid(aid);
  },
  openEyes: () => useEasel.getState().setHow({ squintMm: 0 }),
  wholeSample: () => useEasel.getState().set({ oneLayer: false, asSeen: false }),
};

/** The painter's own rules: what has been set can be changed. */
function Rules() {
  const { rules, setRules } = usePalette();
  return <HouseRulesForm rules={rules} change={setRules} />;
}

/** What limits or bends the hand now; a click on it ends it. */
export function Limits() {
  const bench = useEasel((s) => s.bench);
  const view = useEasel((s) => s.view);
  const aid = useEasel((s) => s.aid);
  const squintMm = useEasel((s) => s.how.squintMm);
  const oneLayer = useEasel((s) => s.oneLayer);
  const asSeen = useEasel((s) => s.asSeen);
  const steady = useSight((s) => s.steady);
  const guide = useSight(() => guideInUse() !== undefined);
  const rules = usePalette((s) => s.rules);
  if (!bench) return null;
  const now = { bench, view, aid, squintMm, guide, steady, rules, oneLayer, asSeen };
  return (
    <div className={styles.limits} role="group" aria-label="What limits the hand">
      {LIMITS.map(({ id, says, end }) => {
        const words = says(now);
        if (!words) return null;
        return end ? (
          <Button
            key={id}
            size="small"
            className={styles.limit}
            icon={<CloseOutlined />}
            iconPlacement="end"
            aria-label={`End: ${words}`}
            onClick={() => end(ENDS, now)}
          >
            {words}
          </Button>
        ) : (
          <Popover key={id} trigger="click" placement="top" title="House rules" content={<Rules />}>
            <Button size="small" type="text" className={styles.rule} title={words} aria-label={`Change: ${words}`}>
              {words}
            </Button>
          </Popover>
        );
      })}
    </div>
  );
}
