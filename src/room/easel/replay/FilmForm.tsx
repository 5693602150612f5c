'use client';
import { Button, Checkbox, InputNumber, Progress, Select } from 'antd';
import { useEffect, useState } from 'react';
import { FILM_SIZES, filmSettings, type FilmSettings, type FilmSize } from '@/engine/replay/filmSettings';
import { kept } from '@/engine/keeping/kept';
import { fileName, saveFile } from '@/room/parts/saveFile';
import { useReplay } from './replayStore';
import { saveSteps, STEP_KINDS, type StepKind } from './saveSteps';
import styles from './replay.module.css';

const own = kept<FilmSettings>({ store: 'likings', key: 'film', version: 1, schema: filmSettings });
const SIZES = (Object.keys(FILM_SIZES) as FilmSize[]).map((value) => ({
  value,
  label: FILM_SIZES[value].join(' × '),
}));
const SHOWN = [
  ['captions', 'Words'],
  ['footprint', 'The tool'],
  ['titled', 'A title'],
] as const;

/** A film of how it was made, or pictures of its stages. */
export function FilmForm({ title }: { title: string }) {
  const { told, making, words } = useReplay();
  const { make, cancel } = useReplay.getState();
  const [film, setFilm] = useState(() => filmSettings.parse({}));
  const [says, setSays] = useState('');
  useEffect(() => {
    void own.read().then((found) => found && setFilm(found));
  }, []);
  const choose = (changes: Partial<FilmSettings>) => {
    const next = { ...film, ...changes };
    setFilm(next);
    // what cannot be kept holds for today
    void own.write(next).catch(() => {});
  };

  const makeFilm = async () => {
    setSays('');
    const made = await make({ say: 'film', wanted: { ...film, title, words } });
    if (made?.say !== 'film') return;
    saveFile(fileName(title, 'webm'), made.bytes, 'video/webm');
    setSays(`${made.seconds.toFixed(0)} s, ${made.frames} pictures, ${(made.bytes.length / 1e6).toFixed(1)} MB.`);
  };
  const steps = async (kind: StepKind) => {
    setSays('');
    const made = await make({ say: 'steps', ends: told.stages.map(({ until }) => until), width: STEP_KINDS[kind].px });
    if (made?.say === 'steps') await saveSteps(kind, { title, told, words, pictures: made.pictures });
  };

  const nothing = told.count === 0;
  return (
    <section aria-label="A film" className={styles.film}>
      <h3>A film</h3>
      <label>
        Size
        <Select
          size="small"
          aria-label="Size of the film"
          value={film.size}
          options={SIZES}
          onChange={(size) => choose({ size })}
        />
      </label>
      <label>
        Lasts, s
        <InputNumber
          size="small"
          aria-label="Length of the film, seconds"
          min={5}
          max={600}
          precision={0}
          value={film.seconds}
          onChange={(seconds) => seconds !== null && choose({ seconds })}
        />
      </label>
      <p>
        {SHOWN.map(([name, label]) => (
          <Checkbox key={name} checked={film[name]} onChange={({ target }) => choose({ [name]: target.checked })}>
            {label}
          </Checkbox>
        ))}
      </p>
      {making ? (
        <div className={styles.making} role="status">
          <Progress
            size="small"
            percent={Math.floor((100 * making.done) / Math.max(1, making.total))}
            aria-label="How far it is"
          />
          <Button size="small" onClick={cancel}>
            Give it up
          </Button>
        </div>
      ) : (
        <p className={styles.ways}>
          <Button type="primary" disabled={nothing} onClick={() => void makeFilm()}>
            Make the film
          </Button>
        </p>
      )}
      <h3>Its stages</h3>
      <p className={styles.ways}>
        {(Object.keys(STEP_KINDS) as StepKind[]).map((kind) => (
          <Button key={kind} disabled={nothing || making !== undefined} onClick={() => void steps(kind)}>
            {STEP_KINDS[kind].label}
          </Button>
        ))}
      </p>
      {says && <p role="status">{says}</p>}
    </section>
  );
}
