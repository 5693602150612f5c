'use client';
import { BgColorsOutlined, LeftOutlined, RightOutlined } from '@ant-design/icons';
import { Button, Dropdown, Popover, Tooltip } from 'antd';
import { useMemo, type ReactNode } from 'react';
import type { Mixture } from '@/core/colour/mixture';
import { pigmentName } from '@/core/colour/pigments';
import { toolOf } from '@/core/tools/tools';
import { usePalette } from '@/room/colour/paletteStore';
import { Drawdown } from '@/room/parts/Drawdown';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { useCarried } from './carry';
import { ColourCard } from './ColourCard';
import { MixtureParts } from './MixtureParts';
import { NudgePad } from './NudgePad';
import { PaintMake } from './PaintMake';
import { PotRow } from './PotRow';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** How much of the brush's width a second colour takes. */
const SIDES = [
  { key: 'half', label: 'Half of it', share: 0.5 },
  { key: 'corner', label: 'A corner', share: 0.2 },
];
/** The mixture in hand: its drawdown with the nudge pad around it, its parts, and how it gets onto the brush. */
export function MixtureTray() {
  const onWater = useEasel((e) => e.bench !== undefined && toolOf(e.bench.tool.tool).forWater === true);
  const parts = useEasel((s) => s.parts);
  const { loadMixture, loadTwo } = useEasel.getState();
  const tool = useEasel((s) => s.bench?.tool.tool);
  const tubes = usePalette((s) => s.tubes);
  const held = tool && toolOf(tool);
  const name = held?.takesPaint && !held.brush ? held.card.name.toLowerCase() : 'brush';
  const mixture = useMemo(() => mixtureOf(parts), [parts]);
  const empty = Object.keys(mixture).length === 0;
  return (
    <section className={styles.mixture} aria-label="Mixture">
      <h3>
        <span className={styles.mixtureWord}>Mixture</span>
        <StepColour by={-1} name="The colour before" icon={<LeftOutlined />} />
        <StepColour by={1} name="The colour after" icon={<RightOutlined />} />
        <span className={easel.spring} />
        <PanelButton panel="pots" name="Pots" />
        <PanelButton panel="leaf" name="Leaf" />
        <PanelButton panel="desk" name="Desk" />
      </h3>
      <div className={styles.pad}>
        <NudgePad />
        {empty ? <span className={`${styles.swatch} ${styles.noSwatch}`}>no paint</span> : <Swatch mixture={mixture} />}
      </div>
      <div className={styles.loadRow}>
        <MixtureParts />
        <Tooltip title="Load it with the mixture (R)">
          <Button
            type="primary"
            size="small"
            disabled={empty}
            aria-label={`Load the ${name}`}
            onClick={() => loadMixture(parts)}
          >
            Load
          </Button>
        </Tooltip>
        <Dropdown
          trigger={['click']}
          disabled={empty}
          menu={{
            items: SIDES.map(({ key, label }) => ({
              key,
              label,
              children: tubes.map((id) => ({ key: `${key} ${id}`, label: pigmentName(id) })),
            })),
            onClick: ({ key }) => {
              const [side, tube] = key.split(' ');
              loadTwo(tube, SIDES.find((s) => s.key === side)!.share);
            },
          }}
        >
          <Tooltip title="Load it with a second colour on one side">
            <Button size="small" aria-label="Load with a second colour" icon={<BgColorsOutlined />} />
          </Tooltip>
        </Dropdown>
        {!onWater && !held?.stick && <PaintMake />}
      </div>
      <PotRow />
    </section>
  );
}

/** Goes through the last colours that were in hand. */
function StepColour({ by, name, icon }: { by: 1 | -1; name: string; icon: ReactNode }) {
  const there = useEasel((s) => s.recent.all[s.recent.at + by] !== undefined);
  const stepColour = useEasel((s) => s.stepColour);
  return (
    <Tooltip title={there ? name : ''}>
      <Button type="text" size="small" icon={icon} aria-label={name} disabled={!there} onClick={() => stepColour(by)} />
    </Tooltip>
  );
}

/** Opens a panel of colour over the view. */
function PanelButton({ panel, name }: { panel: 'pots' | 'leaf' | 'desk'; name: string }) {
  const open = useEasel((s) => s.panel === panel);
  return (
    <Button
      type="link"
      size="small"
      className={easel.stage}
      aria-expanded={open}
      onClick={() => useEasel.getState().togglePanel(panel)}
    >
      {name}
    </Button>
  );
}

/** The mixture as a drawdown: a click opens colours by name and its relations; drawn elsewhere it is left there. */
function Swatch({ mixture }: { mixture: Mixture }) {
  const { setNodeRef, listeners, isDragging } = useCarried('mixture', { of: 'mixture', mixture });
  return (
    <Popover
      trigger="click"
      placement="top"
      title="Colours by name, and related ones"
      content={<ColourCard />}
      destroyOnHidden
    >
      <button
        type="button"
        ref={setNodeRef}
        {...listeners}
        className={styles.swatch}
        data-testid="swatch"
        data-held={isDragging}
        aria-label="Colours by name, and related ones"
        title="Click: colours by name, and related ones. Draw it to the slab or to a pot."
      >
        <Drawdown mixture={mixture} className={styles.swatchPicture} />
      </button>
    </Popover>
  );
}
