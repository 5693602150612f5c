'use client';
import { ClearOutlined, CompressOutlined, ExpandOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { Mixture } from '@/core/colour/mixture';
import { usePalette } from '@/room/colour/paletteStore';
import { recipeWords } from '@/core/colour/recipeWords';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { useHand } from '@/room/parts/useHand';
import { paintIn, useLanding } from './carry';
import { SlabHand } from './slabHand';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** The slab: real paint to mix on, with the tool in hand. */
export function Slab() {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const engine = useEasel((s) => s.engine);
  const opened = useEasel((s) => s.opened);
  const used = useEasel((s) => s.bench?.slabUsed ?? false);
  const sampling = useEasel((s) => s.sampling);
  const sample = useEasel((s) => s.sample);
  const [large, setLarge] = useState(false);
  const { setNodeRef, isOver } = useLanding('slab', (what, at) => {
    const paint = paintIn(what);
    if (paint) squeezeOut(paint, ...at);
  });

  // frames from the engine
  useEffect(() => {
    const { onSlabFrame } = useEasel.getState();
    onSlabFrame((frame) => {
      const element = canvas.current;
      const now = useEasel.getState().engine;
      if (element && frame.of[0] === element.width && frame.of[1] === element.height) {
        element.getContext('2d')!.putImageData(new ImageData(frame.data, frame.width, frame.height), frame.x, frame.y);
      }
      now?.slabShown();
    });
    return () => onSlabFrame(undefined);
  }, []);

  // as large as there is room
  useEffect(() => {
    const element = box.current!;
    const fit = () => {
      if (!engine || !opened || !canvas.current) return;
      const dpr = window.devicePixelRatio;
      const { widthMm, heightMm } = opened.slab;
      const scale = Math.min(element.clientWidth / widthMm, element.clientHeight / heightMm);
      const width = Math.max(8, Math.round(widthMm * scale * dpr));
      const height = Math.max(8, Math.round(heightMm * scale * dpr));
      if (canvas.current.width === width && canvas.current.height === height) return;
      canvas.current.width = width;
      canvas.current.height = height;
      canvas.current.style.width = `${width / dpr}px`;
      canvas.current.style.height = `${height / dpr}px`;
      engine.lookAtSlab(width, height);
    };
    const observer = new ResizeObserver(fit);
    observer.observe(element);
    fit();
    return () => observer.disconnect();
  }, [engine, opened, large]);

  const hand = useRef<SlabHand>(undefined);
  useEffect(() => {
    if (!engine || !opened) return;
    hand.current = new SlabHand(canvas.current!, engine, opened.slab.widthMm);
    return () => {
      hand.current?.dispose();
      hand.current = undefined;
    };
  }, [engine, opened]);
  useHand(canvas, engine !== undefined && opened !== undefined, {
    down: (event) => hand.current?.down(event),
    move: (event) => hand.current?.move(event),
    readings: (event) => hand.current?.readings(event),
    up: (event) => hand.current?.up(event),
  });

  return (
    <section className={large ? `${styles.slab} ${styles.slabLarge}` : styles.slab} aria-label="Slab">
      <h3>
        Slab
        <span className={easel.spring} />
        <Tooltip title="Squeeze the mixture out">
          <Button
            type="text"
            size="small"
            icon={<PlusOutlined />}
            aria-label="Squeeze the mixture out"
            onClick={squeezeNext}
          />
        </Tooltip>
        <Tooltip title="Scrape the slab clean">
          <Button
            type="text"
            size="small"
            icon={<ClearOutlined />}
            aria-label="Scrape the slab clean"
            disabled={!used}
            onClick={() => useEasel.getState().apply({ do: 'slab.scrape' })}
          />
        </Tooltip>
        <Tooltip title={large ? 'Put the slab back on the bench' : 'Bring the slab nearer'}>
          <Button
            type="text"
            size="small"
            icon={large ? <CompressOutlined /> : <ExpandOutlined />}
            aria-label={large ? 'Put the slab back' : 'Bring the slab nearer'}
            onClick={() => setLarge(!large)}
          />
        </Tooltip>
      </h3>
      <div
        ref={(element) => {
          box.current = element;
          setNodeRef(element);
        }}
        className={styles.stone}
        data-over={isOver}
      >
        <canvas
          ref={canvas}
          data-testid="slab"
          role="img"
          aria-label="Slab to mix on: draw a tube here to squeeze it out, drag to mix, press to take paint up"
          style={{ cursor: sampling ? 'crosshair' : 'default' }}
        />
        {sampling && sample?.layer === 'slab' && <span className={styles.slabTag}>{recipeWords(sample.mixture)}</span>}
        {!used && opened && <span className={styles.slabHint}>draw a tube here</span>}
      </div>
    </section>
  );
}

/** Squeezes a mixture out where it was let go over the slab, client coordinates. */
function squeezeOut(mixture: Mixture, clientX: number, clientY: number): void {
  const element = document.querySelector<HTMLCanvasElement>('[data-testid=slab]');
  const { opened } = useEasel.getState();
  if (!element || !opened) return;
  const { left, top, width } = element.getBoundingClientRect();
  const k = opened.slab.widthMm / width;
  squeezeAt(mixture, (clientX - left) * k, (clientY - top) * k);
}

/** Squeezes a mixture out at a place of the slab, mm. */
function squeezeAt(mixture: Mixture, x: number, y: number): void {
  const { opened, bench, apply } = useEasel.getState();
  if (!opened || Object.keys(mixture).length === 0) return;
  const within = (v: number, most: number) => Math.round(Math.min(most - 3, Math.max(3, v)) * 10) / 10;
  const at: [number, number] = [within(x, opened.slab.widthMm), within(y, opened.slab.heightMm)];
  usePalette.getState().bring(mixture);
  apply({ do: 'slab.squeeze', mixture, at, sizeMm: 14, vehicle: bench?.tool.vehicle ?? 'oil' });
}

/** Places in a row along the upper edge, for those who do not draw: one after another. */
const ROW = 8;
let place = 0;

/** Squeezes the mixture in hand out at the next place of the row. */
function squeezeNext(): void {
  const { opened, parts, bench } = useEasel.getState();
  if (!opened) return;
  if (!bench?.slabUsed) place = 0;
  const { widthMm, heightMm } = opened.slab;
  squeezeAt(mixtureOf(parts), (widthMm * (0.5 + (place++ % ROW))) / ROW, heightMm * 0.14);
}
