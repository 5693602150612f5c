'use client';
import { DndContext, DragOverlay, pointerWithin, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useEffect, useState } from 'react';
import { InHand } from '@/room/easel/hand/InHand';
import { Jar, Mark } from '@/room/easel/hand/Jar';
import { useJar } from '@/room/easel/hand/jarStore';
import { MixtureTray } from './MixtureTray';
import { Roll } from '@/room/easel/hand/Roll';
import { Drawdown } from '@/room/parts/Drawdown';
import { usePots } from '@/room/colour/potStore';
import { carriedBy, landingOf, paintIn, type Carried } from './carry';
import { DeskPanel } from './DeskPanel';
import { LeafPanel } from './LeafPanel';
import { PotsPanel } from './PotsPanel';
import { Slab } from './Slab';
import { StickBox } from '@/room/easel/hand/StickBox';
import { TubeRack } from './TubeRack';
import { Tubes } from './Tubes';
import styles from './bench.module.css';

/** The bench under the canvas: hands reach down, and not up into menus. */
export function Bench() {
  const readJar = useJar((s) => s.read);
  const readPots = usePots((s) => s.read);
  const [held, setHeld] = useState<Carried>();
  // a click takes a tool, a pull draws it out
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useEffect(() => void readJar(), [readJar]);
  useEffect(() => void readPots(), [readPots]);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setHeld(carriedBy(active))}
      onDragEnd={({ active, over }) => {
        setHeld(undefined);
        const what = carriedBy(active);
        const box = active.rect.current.translated;
        if (what && box) landingOf(over)?.(what, [box.left + box.width / 2, box.top + box.height / 2]);
      }}
      onDragCancel={() => setHeld(undefined)}
    >
      <Roll />
      <TubeRack />
      <LeafPanel />
      <PotsPanel />
      <DeskPanel />
      <StickBox />
      <footer className={styles.bench}>
        <h2 className="visually-hidden">The bench</h2>
        <Tubes />
        <Slab />
        <MixtureTray />
        <Jar />
        <InHand />
      </footer>
      <DragOverlay dropAnimation={null}>{held && <Pulled what={held} />}</DragOverlay>
    </DndContext>
  );
}

/** What is carried, as it is seen on its way. */
function Pulled({ what }: { what: Carried }) {
  const paint = paintIn(what);
  if (paint) return <Drawdown mixture={paint} className={styles.pulledTube} />;
  return what.of === 'tool' || what.of === 'place' ? <Mark id={what.tool} /> : null;
}
