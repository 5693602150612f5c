'use client';
import { PlusOutlined } from '@ant-design/icons';
import { Button, Dropdown, Tooltip } from 'antd';
import { tube, type Pigment } from '@/core/colour/pigments';
import { toolOf } from '@/core/tools/tools';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { usePalette } from '@/room/colour/paletteStore';
import { Drawdown } from '@/room/parts/Drawdown';
import { benchName } from '@/room/parts/benchNames';
import { useEasel } from '@/room/easel/easelStore';
import { useCarried, useLanding } from './carry';
import easel from '../easel.module.css';
import styles from './bench.module.css';

export const transparencyWords = (t: Pigment['transparency']): string => (t === 'semi' ? 'half transparent' : t);

/**
 * The tubes at hand, each as a drawdown. A click loads the brush, the plus adds the tube to the mixture, drawn to the
 * slab it is squeezed out, drawn to another place it stays there.
 */
export function Tubes() {
  const { tubes, name, ownSets, choose } = usePalette();
  const togglePanel = useEasel((s) => s.togglePanel);
  const open = useEasel((s) => s.panel === 'rack');
  const stick = useEasel((s) => s.bench !== undefined && toolOf(s.bench.tool.tool).stick !== undefined);
  const sets = [...TUBE_SETS, ...ownSets];
  const asSet = sets.some(
    (s) => s.name === name && s.tubes.length === tubes.length && s.tubes.every((id) => tubes.includes(id)),
  );
  return (
    <section className={styles.tubes} aria-label="Tubes">
      <h3>
        <Dropdown
          trigger={['click']}
          menu={{
            items: sets.map((s) => ({ key: s.id, label: s.name })),
            onClick: ({ key }) => choose(sets.find((s) => s.id === key)!),
          }}
        >
          <Button type="text" size="small" className={styles.setName} aria-label={`Set of tubes: ${name}`}>
            Tubes: {name}
            {!asSet && ', altered'}
          </Button>
        </Dropdown>
        <span className={easel.spring} />
        {stick && (
          <Button
            type="link"
            size="small"
            className={`${easel.stage} ${styles.gap}`}
            onClick={() => togglePanel('sticks')}
          >
            Sticks
          </Button>
        )}
        <Button
          type="link"
          size="small"
          className={easel.stage}
          aria-expanded={open}
          onClick={() => togglePanel('rack')}
        >
          Tube rack
        </Button>
      </h3>
      <div className={styles.tubeRow}>
        {tubes.map((id) => (
          <TubeOnBench key={id} id={id} />
        ))}
      </div>
    </section>
  );
}

/** Puts a tube into the place of another. */
function moveTube(tube: string, place: string): void {
  if (place === tube) return;
  const { tubes, setTubes } = usePalette.getState();
  const rest = tubes.filter((id) => id !== tube);
  const at = rest.indexOf(place) + (tubes.indexOf(tube) < tubes.indexOf(place) ? 1 : 0);
  setTubes([...rest.slice(0, at), tube, ...rest.slice(at)]);
}

function TubeOnBench({ id }: { id: string }) {
  const parts = useEasel((s) => s.parts);
  const { loadMixture } = useEasel.getState();
  const { setNodeRef: pulled, listeners, isDragging } = useCarried(`tube-${id}`, { of: 'tube', tube: id });
  const { setNodeRef: place, isOver } = useLanding(`tubeplace-${id}`, (what) => {
    if (what.of === 'tube') moveTube(what.tube, id);
  });
  const pigment = tube(id);
  if (!pigment) return null;
  const label = benchName(id);
  return (
    <div ref={place} className={styles.tube} data-used={(parts[id] ?? 0) > 0} data-held={isDragging} data-over={isOver}>
      <Tooltip
        mouseEnterDelay={0.4}
        title={`${pigment.name}, ${pigment.colourIndex}, ${transparencyWords(pigment.transparency)}`}
      >
        <button
          type="button"
          ref={pulled}
          {...listeners}
          aria-label={`Load ${pigment.name}${pigment.name.includes(label) ? '' : `, ${label}`}`}
          onClick={() => loadMixture({ [id]: 1 })}
        >
          <Drawdown mixture={{ [id]: 1 }} className={styles.drawdown} />
          <span className={styles.tubeName}>{label}</span>
        </button>
      </Tooltip>
      <button
        type="button"
        className={styles.add}
        aria-label={`Add ${pigment.name} to the mixture`}
        onClick={() => loadMixture({ ...parts, [id]: (parts[id] ?? 0) + 1 })}
      >
        <PlusOutlined />
      </button>
    </div>
  );
}
