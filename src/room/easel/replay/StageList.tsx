'use client';
import { Input } from 'antd';
import { stageWords } from '@/core/journal/playing/stages';
import { MOST_WORDS } from '@/engine/keeping/paintingRecord';
import { useReplay } from './replayStore';
import styles from './replay.module.css';

/** The stages: each leads to its beginning, and can be said in other words. */
export function StageList() {
  const { told, times, place, words } = useReplay();
  const { go, say } = useReplay.getState();
  const now = told.stageAt(place.done)?.number;
  return (
    <section aria-label="Stages" className={styles.stages}>
      <h3>Stages</h3>
      <ol>
        {told.stages.map((stage) => {
          const [first, last] = stage.strokes;
          const own = words[first] ?? '';
          return (
            <li key={`${first} ${own}`} aria-current={stage.number === now}>
              <button
                type="button"
                aria-label={`To stage ${stage.number}`}
                onClick={() => go(times.timeOf({ done: stage.from, readings: 0 }))}
              >
                {first} to {last}
              </button>
              <Input
                size="small"
                variant="borderless"
                aria-label={`Words for stage ${stage.number}`}
                defaultValue={own || stageWords(stage)}
                maxLength={MOST_WORDS}
                onPressEnter={(event) => event.currentTarget.blur()}
                onBlur={({ currentTarget: { value } }) => {
                  const said = value.trim() === stageWords(stage) ? '' : value;
                  if (said.trim() !== own) say(first, said);
                }}
              />
            </li>
          );
        })}
      </ol>
      <p className="quiet">Words can be changed; they are kept with the painting.</p>
    </section>
  );
}
