'use client';
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useEffect, useState } from 'react';
import type { ToolId } from '@/core/marks/tools';
import { InHand } from './InHand';
import { Jar, Mark } from './Jar';
import { useJar } from './jarStore';
import { MixtureTray } from './MixtureTray';
import { Roll } from './Roll';
import { isToolId } from './roll';
import { Tubes } from './Tubes';
import styles from './easel.module.css';

/** The bench under the canvas: hands reach down, and not up into menus. */
export function Bench() {
  const { put, read } = useJar();
  const [held, setHeld] = useState<ToolId>();
  // a click takes a tool, a pull draws it out
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useEffect(() => void read(), [read]);
  return (
    <DndContext
      sensors={sensors}
      onDragStart={({ active }) => setHeld(isToolId(String(active.id)) ? (active.id as ToolId) : undefined)}
      onDragEnd={({ active, over }) => {
        setHeld(undefined);
        const place = /^place-(\d)$/.exec(String(over?.id ?? ''));
        if (place && isToolId(String(active.id))) put(active.id as ToolId, Number(place[1]));
      }}
      onDragCancel={() => setHeld(undefined)}
    >
      <Roll />
      <footer className={styles.bench}>
        <Tubes />
        <MixtureTray />
        <Jar />
        <InHand />
      </footer>
      <DragOverlay dropAnimation={null}>{held && <Mark id={held} />}</DragOverlay>
    </DndContext>
  );
}
