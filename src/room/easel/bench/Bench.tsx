'use client';
import { DndContext, DragOverlay, pointerWithin, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useEffect, useState } from 'react';
import { isToolId, type ToolId } from '@/core/tools/tools';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { InHand } from '@/room/easel/hand/InHand';
import { Jar, Mark } from '@/room/easel/hand/Jar';
import { useJar } from '@/room/easel/hand/jarStore';
import { MixtureTray } from './MixtureTray';
import { Roll } from '@/room/easel/hand/Roll';
import { Drawdown } from '@/room/parts/Drawdown';
import { usePalette } from '@/room/colour/paletteStore';
import { LeafPanel } from './LeafPanel';
import { Slab, squeezeOut } from './Slab';
import { StickBox } from '@/room/easel/hand/StickBox';
import { TubeRack } from './TubeRack';
import { Tubes } from './Tubes';
import styles from './bench.module.css';

/** The bench under the canvas: hands reach down, and not up into menus. */
export function Bench() {
  const { put, read } = useJar();
  const [held, setHeld] = useState<string>();
  // a click takes a tool, a pull draws it out
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useEffect(() => void read(), [read]);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setHeld(String(active.id))}
      onDragEnd={({ active, over }) => {
        setHeld(undefined);
        if (active.id === 'mixture') {
          const rect = active.rect.current.translated;
          const mixture = mixtureOf(useEasel.getState().parts);
          if (over?.id === 'slab' && rect) squeezeOut(mixture, ...middle(rect));
          return;
        }
        const pulled = /^tube-(.+)$/.exec(String(active.id))?.[1];
        if (pulled) {
          letGo(pulled, String(over?.id ?? ''), active.rect.current.translated);
          return;
        }
        const place = /^place-(\d)$/.exec(String(over?.id ?? ''));
        if (place && isToolId(String(active.id))) put(active.id as ToolId, Number(place[1]));
      }}
      onDragCancel={() => setHeld(undefined)}
    >
      <Roll />
      <TubeRack />
      <LeafPanel />
      <StickBox />
      <footer className={styles.bench}>
        <h2 className="visually-hidden">The bench</h2>
        <Tubes />
        <Slab />
        <MixtureTray />
        <Jar />
        <InHand />
      </footer>
      <DragOverlay dropAnimation={null}>
        {held && isToolId(held) && <Mark id={held} />}
        {held === 'mixture' && (
          <Drawdown mixture={mixtureOf(useEasel.getState().parts)} className={styles.pulledTube} />
        )}
        {held?.startsWith('tube-') && <Drawdown mixture={{ [held.slice(5)]: 1 }} className={styles.pulledTube} />}
      </DragOverlay>
    </DndContext>
  );
}

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}
const middle = (box: Box): [number, number] => [box.left + box.width / 2, box.top + box.height / 2];

/** A tube was let go: over the slab it is squeezed out there, over another tube it takes that place. */
function letGo(tube: string, over: string, rect: Box | null) {
  if (over === 'slab' && rect) squeezeOut({ [tube]: 1 }, ...middle(rect));
  const place = /^tubeplace-(.+)$/.exec(over)?.[1];
  if (!place || place === tube) return;
  const { tubes, setTubes } = usePalette.getState();
  const rest = tubes.filter((id) => id !== tube);
  const at = rest.indexOf(place) + (tubes.indexOf(tube) < tubes.indexOf(place) ? 1 : 0);
  setTubes([...rest.slice(0, at), tube, ...rest.slice(at)]);
}
