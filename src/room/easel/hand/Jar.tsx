'use client';
import { Button, Dropdown, Tooltip } from 'antd';
import { DownOutlined } from '@ant-design/icons';
import { useEffect, useRef } from 'react';
import type { ToolId } from '@/core/tools/tools';
import { isDrawingPaper } from '@/core/surface/drawingPaper';
import { isPaper } from '@/core/surface/paper';
import { useEasel } from '@/room/easel/easelStore';
import { useCarried, useLanding } from '@/room/easel/bench/carry';
import { firstInHand, jarNow, KITS, useJar, type Kit } from './jarStore';
import { cardOf, STAGES } from './roll';
import { setupName, type Setup } from './setups';
import { begin, takePlace, takeTool } from './taking';
import easel from '../easel.module.css';
import styles from './hand.module.css';

const isKit = (key: string): key is Kit => (KITS as readonly string[]).includes(key);

/** The jar: six tools, each shown by the mark it makes from light to heavy pressure, set out for a stage of the work. */
export function Jar() {
  const { stage, kit, jars, setStage, setKit } = useJar();
  const surface = useEasel((s) => s.opened?.spec.surface.kind);
  useEffect(() => {
    if (surface) setKit(isPaper(surface) ? 'water' : isDrawingPaper(surface) ? 'dry' : 'paint');
  }, [surface, setKit]);
  // a painting that nobody has touched begins with what stands first in its jar
  const begun = useRef(false);
  const ready = useJar((s) => s.ready);
  const painter = useEasel((s) => s.painter);
  const there = useEasel((s) => s.bench !== undefined);
  useEffect(() => {
    const { bench } = useEasel.getState();
    if (begun.current || !surface || !ready || painter !== 'here' || !bench) return;
    begun.current = true;
    const first = firstInHand(bench, jarNow());
    if (first) begin(first);
  }, [surface, ready, painter, there]);
  const rollOpen = useEasel((s) => s.panel === 'roll');
  return (
    <section className={easel.jar} aria-label="Jar">
      <h3>
        <span className={styles.setOut}>{kit === 'paint' ? 'Set out for' : 'For'}</span>
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              ...STAGES.map((s) => ({ key: s, label: s })),
              { type: 'divider' as const },
              { key: 'paint', label: 'with paint' },
              { key: 'water', label: 'with water' },
              { key: 'dry', label: 'with sticks' },
            ],
            selectedKeys: [stage, kit],
            onClick: ({ key }) => (isKit(key) ? setKit(key) : setStage(key as (typeof STAGES)[number])),
          }}
        >
          <Button type="link" className={easel.stage} aria-label={`Set out for ${stage}: choose another stage`}>
            {stage}
            {kit === 'water' ? ', water' : kit === 'dry' ? ', sticks' : ''} <DownOutlined />
          </Button>
        </Dropdown>
        <Tooltip title="All tools (T)">
          <Button
            type="link"
            className={easel.stage}
            aria-expanded={rollOpen}
            onClick={() => useEasel.getState().togglePanel('roll')}
          >
            Roll
          </Button>
        </Tooltip>
      </h3>
      <div className={styles.marks}>
        {jars[kit][stage].map((setup, i) => (
          <Place key={i} setup={setup} place={i} />
        ))}
      </div>
    </section>
  );
}

/** One place in the jar: a tool with its settings; drawn to another place they change. */
function Place({ setup, place }: { setup: Setup; place: number }) {
  const { tool, id } = setup;
  const inHand = useEasel((s) => s.bench?.tool.tool) === tool;
  const held = useJar((s) => s.inHand);
  const { setNodeRef: landing, isOver } = useLanding(`place-${place}`, (what) => {
    if (what.of === 'tool') useJar.getState().put(what.tool, place);
    else if (what.of === 'place') useJar.getState().swap(what.place, place);
  });
  const { setNodeRef: pulled, listeners } = useCarried(`from-${place}`, { of: 'place', place, tool });
  const name = setupName(setup);
  return (
    <Tooltip title={`${name}: ${settingWords(setup) || cardOf(tool).edge} (key ${place + 1})`}>
      <button
        ref={(element) => {
          landing(element);
          pulled(element);
        }}
        {...listeners}
        type="button"
        data-over={isOver}
        aria-pressed={inHand && (held === undefined || held === id)}
        onClick={() => takePlace(place)}
      >
        <Mark id={tool} />
        <span>
          <span className={styles.digit} aria-hidden="true">
            {place + 1}
          </span>
          <span className="visually-hidden">Take the</span> {name}
        </span>
      </button>
    </Tooltip>
  );
}

/** What has been set of it, in words; '' where it is as at first. */
const settingWords = ({ held: { sizeMm, strength } }: Setup): string =>
  [sizeMm && `${sizeMm} mm`, strength !== undefined && `${Math.round(strength * 100)} %`].filter(Boolean).join(', ');

/** The mark of a tool, painted by the engine. */
export function Mark({ id }: { id: ToolId }) {
  // eslint-disable-next-line @next/next/no-img-element -- a small fixed picture
  return <img src={`/marks/${id}.png`} alt="" width={104} height={34} draggable={false} />;
}

/** A tool in the roll: a click takes it, and it can be drawn into the jar. */
export function RollCard({ id }: { id: ToolId }) {
  const inHand = useEasel((s) => s.bench?.tool.tool);
  const put = useJar((s) => s.put);
  const { attributes, listeners, setNodeRef, isDragging } = useCarried(id, { of: 'tool', tool: id });
  const { name, edge, hint } = cardOf(id);
  return (
    <div className={styles.card} data-held={isDragging}>
      <button
        ref={setNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        aria-pressed={inHand === id}
        onClick={() => {
          takeTool(id);
          useEasel.getState().set({ panel: null });
        }}
      >
        <Mark id={id} />
        <span className={styles.cardName}>
          <span className="visually-hidden">Take the</span> <b>{name}</b> {edge}
          <span className="visually-hidden">, {hint}</span>
        </span>
      </button>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [1, 2, 3, 4, 5, 6].map((n) => ({ key: String(n - 1), label: `Place ${n} of the jar` })),
          onClick: ({ key }) => put(id, Number(key)),
        }}
      >
        <Button type="text" size="small" className={styles.toJar} aria-label={`Put the ${name} into the jar`}>
          to jar
        </Button>
      </Dropdown>
    </div>
  );
}
