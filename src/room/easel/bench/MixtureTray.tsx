'use client';
import { BgColorsOutlined, CloseOutlined, EditOutlined, LeftOutlined, RightOutlined } from '@ant-design/icons';
import { Button, Dropdown, InputNumber, Popover, Tooltip } from 'antd';
import { useDraggable } from '@dnd-kit/core';
import Link from 'next/link';
import { useMemo, type ReactNode } from 'react';
import type { Mixture } from '@/core/colour/mixture';
import { pigmentName } from '@/core/colour/pigments';
import { toolOf } from '@/core/tools/tools';
import { NUDGES, nudge, type NudgeDirection } from '@/core/mixing/nudge';
import { usePalette } from '@/room/colour/paletteStore';
import { Drawdown } from '@/room/parts/Drawdown';
import { amountWords, recipeWords, shortName } from '@/room/parts/recipeWords';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { PaintMake } from './PaintMake';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** How much of the brush's width a second colour takes. */
const SIDES = [
  { key: 'half', label: 'Half of it', share: 0.5 },
  { key: 'corner', label: 'A corner', share: 0.2 },
];
/** The two columns of the nudge pad: each pair stands across from one another. */
const PAIRS: readonly (readonly [NudgeDirection, NudgeDirection])[] = [
  ['lighter', 'darker'],
  ['warmer', 'cooler'],
  ['cleaner', 'duller'],
];

/** The mixture in hand: its drawdown with the nudge pad around it, its parts, and how it gets onto the brush. */
export function MixtureTray() {
  const onWater = useEasel((e) => e.bench !== undefined && toolOf(e.bench.tool.tool).forWater === true);
  const parts = useEasel((s) => s.parts);
  const { loadMixture, loadTwo, togglePanel } = useEasel.getState();
  const tool = useEasel((s) => s.bench?.tool.tool);
  const leafOpen = useEasel((s) => s.panel === 'leaf');
  const tubes = usePalette((s) => s.tubes);
  const painting = usePalette((s) => s.painting);
  const held = tool && toolOf(tool);
  const name = held?.takesPaint && !held.brush ? held.card.name.toLowerCase() : 'brush';
  const mixture = useMemo(() => mixtureOf(parts), [parts]);
  const empty = Object.keys(mixture).length === 0;
  return (
    <section className={styles.mixture} aria-label="Mixture">
      <h3>
        Mixture
        <StepColour by={-1} name="The colour before" icon={<LeftOutlined />} />
        <StepColour by={1} name="The colour after" icon={<RightOutlined />} />
        <span className={easel.spring} />
        <Button
          type="link"
          size="small"
          className={easel.stage}
          aria-expanded={leafOpen}
          onClick={() => togglePanel('leaf')}
        >
          Leaf
        </Button>
        {painting && (
          <Link href={`/desk?painting=${painting}`} className={styles.toDesk}>
            Desk
          </Link>
        )}
      </h3>
      <div className={styles.pad}>
        {NUDGES.map((direction) => (
          <NudgeButton key={direction} direction={direction} />
        ))}
        {empty ? <span className={`${styles.swatch} ${styles.noSwatch}`}>no paint</span> : <Swatch mixture={mixture} />}
      </div>
      <Popover trigger="click" placement="top" title="Mixture by parts" content={<Parts />}>
        <button
          type="button"
          className={styles.recipeButton}
          aria-label={`Mixture by parts: ${empty ? 'choose tubes' : recipeWords(mixture)}`}
        >
          <span data-testid="mixture">{empty ? 'choose tubes' : recipeWords(mixture)}</span> <EditOutlined />
        </button>
      </Popover>
      <div className={styles.loadRow}>
        <Button type="primary" disabled={empty} onClick={() => loadMixture(parts)}>
          Load the {name}
        </Button>
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
            <Button aria-label="Load with a second colour" icon={<BgColorsOutlined />} />
          </Tooltip>
        </Dropdown>
        {!onWater && !held?.stick && <PaintMake />}
      </div>
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

/** The mixture as a drawdown; drawn to the slab it is squeezed out there. */
function Swatch({ mixture }: { mixture: Mixture }) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: 'mixture' });
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      className={styles.swatch}
      data-testid="swatch"
      data-held={isDragging}
      title="Draw it to the slab to squeeze it out there"
    >
      <Drawdown mixture={mixture} className={styles.swatchPicture} />
    </div>
  );
}

/** One of the six: adds a little of the tube at hand that takes the mixture that way, and says which. */
function NudgeButton({ direction }: { direction: NudgeDirection }) {
  const parts = useEasel((s) => s.parts);
  const tubes = usePalette((s) => s.tubes);
  const loadMixture = useEasel((s) => s.loadMixture);
  const found = useMemo(() => nudge(mixtureOf(parts), direction, tubes), [parts, tubes, direction]);
  const total = Object.values(parts).reduce((p, q) => p + q, 0);
  const row = PAIRS.findIndex((pair) => pair.includes(direction)) + 1;
  const column = PAIRS[row - 1][0] === direction ? 1 : 3;
  return (
    <Tooltip
      title={
        found ? `+ ${amountWords(found.amount)} ${shortName(found.tube)}` : `None of these tubes makes it ${direction}`
      }
    >
      <button
        type="button"
        className={styles.nudge}
        style={{ gridRow: row, gridColumn: column }}
        disabled={!found}
        aria-label={
          found ? `Make it ${direction}: ${amountWords(found.amount)} ${shortName(found.tube)}` : `Make it ${direction}`
        }
        onClick={() => {
          if (!found) return;
          const added = (parts[found.tube] ?? 0) + found.amount * total;
          loadMixture({ ...parts, [found.tube]: Number(added.toPrecision(3)) });
        }}
      >
        {direction}
      </button>
    </Tooltip>
  );
}

/** The parts of the mixture as numbers. */
function Parts() {
  const parts = useEasel((s) => s.parts);
  const setParts = useEasel((s) => s.setParts);
  if (Object.keys(parts).length === 0) return <p className="quiet">Add tubes by their plus.</p>;
  return (
    <ul className={styles.partList}>
      {Object.entries(parts).map(([id, n]) => (
        <li key={id}>
          <InputNumber
            size="small"
            min={0}
            max={999}
            step={n < 0.1 ? 0.01 : n < 1 ? 0.1 : 1}
            value={Number(n.toPrecision(3))}
            aria-label={`Parts of ${shortName(id)}`}
            onChange={(v) => setParts({ ...parts, [id]: v ?? 0 })}
          />
          <span>{shortName(id)}</span>
          <Button
            type="text"
            icon={<CloseOutlined />}
            aria-label={`Leave out ${shortName(id)}`}
            onClick={() => {
              const { [id]: _, ...rest } = parts;
              setParts(rest);
            }}
          />
        </li>
      ))}
    </ul>
  );
}
