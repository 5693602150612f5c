'use client';
import {
  CaretLeftOutlined,
  CaretRightOutlined,
  PauseOutlined,
  StepBackwardOutlined,
  StepForwardOutlined,
} from '@ant-design/icons';
import { Button, Select, Slider } from 'antd';
import { useRouter } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { useEasel } from '@/room/easel/easelStore';
import { OverPanel, PanelHead } from '@/room/easel/OverPanel';
import { CaptionLine } from './CaptionLine';
import { FilmForm } from './FilmForm';
import { useReplay } from './replayStore';
import { StageList } from './StageList';
import { TipOver } from './TipOver';
import styles from './replay.module.css';

/** "How it was made": the journal played, stage by stage, and as a film. */
export function ReplayPanel({ title }: { title: string }) {
  return (
    <OverPanel of="made" name="How it was made">
      <Replay title={title} />
    </OverPanel>
  );
}

/** How long it may last, as it is chosen. */
const LENGTHS = [
  { value: 20, label: 'in 20 seconds' },
  { value: 60, label: 'in a minute' },
  { value: 300, label: 'in 5 minutes' },
  { value: 0, label: 'as long as it takes' },
];
const PACES = [
  { value: 'stroke' as const, label: 'Every stroke alike' },
  { value: 'time' as const, label: 'As the hand moved' },
];

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

function Replay({ title }: { title: string }) {
  const router = useRouter();
  const canvas = useRef<HTMLCanvasElement>(null);
  const room = useRef<HTMLDivElement>(null);
  const { open, look, go, stroke, toggle, setPacing, takeFromHere } = useReplay.getState();
  const { told, times, time, pacing, playing, arriving, explored, making, trouble } = useReplay();

  useEffect(() => {
    const close = open(({ x, y, width, height, of: [wide, high], data }) => {
      const element = canvas.current;
      if (!element) return;
      if (element.width !== wide || element.height !== high) [element.width, element.height] = [wide, high];
      element.getContext('2d')!.putImageData(new ImageData(data, width, height), x, y);
    });
    const sized = new ResizeObserver(([{ contentRect }]) => {
      const dpr = window.devicePixelRatio;
      look(Math.max(1, Math.round(contentRect.width * dpr)), Math.max(1, Math.round(contentRect.height * dpr)));
    });
    sized.observe(room.current!);
    return () => {
      sized.disconnect();
      close();
    };
  }, [open, look]);

  const take = async () => {
    const id = await takeFromHere();
    if (!id) return;
    useEasel.getState().set({ panel: null });
    router.push(`/easel?painting=${id}`);
  };
  const marks = Object.fromEntries(
    told.stages.slice(1).map(({ from }) => [times.timeOf({ done: from, readings: 0 }), ' ']),
  );
  return (
    <div className={styles.replay}>
      <PanelHead name="How it was made">
        <span className="quiet">{title}</span>
        <span className="quiet" role="status">
          {explored < 1 ? `${Math.floor(100 * explored)} % of it is at hand` : 'all of it is at hand'}
        </span>
        {trouble && (
          <span role="alert" className="trouble">
            {trouble}
          </span>
        )}
        <Button onClick={() => void take()} disabled={told.count === 0 || making !== undefined}>
          Take it from here
        </Button>
      </PanelHead>
      <div className={styles.body}>
        <div className={styles.left}>
          <div ref={room} className={styles.room}>
            <canvas ref={canvas} aria-label="The painting at this moment" data-arriving={arriving} />
            <TipOver />
          </div>
          <CaptionLine />
          <div className={styles.transport}>
            <Button icon={<StepBackwardOutlined />} aria-label="A stroke back" onClick={() => stroke(-1)} />
            <Button
              icon={<CaretLeftOutlined />}
              aria-label="Play back"
              disabled={playing || making !== undefined}
              onClick={() => toggle(true)}
            />
            <Button
              type="primary"
              icon={playing ? <PauseOutlined /> : <CaretRightOutlined />}
              aria-label={playing ? 'Pause' : 'Play'}
              disabled={making !== undefined}
              onClick={() => toggle()}
            />
            <Button icon={<StepForwardOutlined />} aria-label="A stroke on" onClick={() => stroke(1)} />
            <Slider
              className={styles.slider}
              min={0}
              max={Math.max(0.001, times.total)}
              step={Math.max(0.001, times.total / 5000)}
              value={Math.min(time, times.total)}
              marks={marks}
              disabled={making !== undefined}
              onChange={go}
              tooltip={{ formatter: null }}
              ariaLabelForHandle="Moment"
            />
            <span className={styles.clock}>
              {clock(time)} of {clock(times.total)}
            </span>
            <Select
              size="small"
              aria-label="Pace"
              value={pacing.by}
              options={PACES}
              onChange={(by) => setPacing({ ...pacing, by })}
            />
            <Select
              size="small"
              aria-label="How long it lasts"
              value={pacing.seconds ?? 0}
              options={LENGTHS}
              onChange={(seconds) => setPacing({ by: pacing.by, ...(seconds > 0 && { seconds }) })}
            />
          </div>
        </div>
        <aside className={styles.right}>
          <StageList />
          <FilmForm title={title} />
        </aside>
      </div>
    </div>
  );
}
