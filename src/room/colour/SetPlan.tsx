'use client';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { TUBE_SETS } from '@/core/colour/tubeSets';
import { textOf } from '@/core/formats/textOf';
import { decodeTubeSet, encodeTubeSet } from '@/core/formats/tubeSetFile';
import { PainterError } from '@/core/errors';
import { FileButton } from '../parts/FileButton';
import { fileName, saveFile } from '../parts/saveFile';
import { shortName } from '@/core/colour/recipeWords';
import { HouseRulesForm } from './HouseRulesForm';
import { usePalette } from './paletteStore';
import styles from './colour.module.css';

/** The set that is at hand: its plan, own sets, the file to share it, and the rules a painter sets. */
export function SetPlan() {
  const palette = usePalette();
  const { name, note, tubes, rules, ownSets, ownPaints } = palette;
  const [title, setTitle] = useState<string>();
  const [trouble, setTrouble] = useState('');
  const called = title ?? name;
  const attempt = async (work: () => Promise<unknown> | void) => {
    setTrouble('');
    try {
      await work();
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : 'That could not be done.');
    }
  };
  const open = (file: File) =>
    attempt(async () => {
      const read = decodeTubeSet(textOf(new Uint8Array(await file.arrayBuffer())));
      for (const paint of read.paints) await palette.addPaint(paint);
      await palette.saveSet(read.name, read.note, read.tubes);
      setTitle(undefined);
    });
  const share = () => {
    const paints = ownPaints.filter((p) => tubes.includes(p.id));
    saveFile(fileName(called, 'tubes.json'), encodeTubeSet({ name: called, note, tubes, paints }), 'application/json');
  };
  return (
    <div className={styles.plan}>
      <h3>Sets</h3>
      <ul className={styles.sets}>
        {[...TUBE_SETS, ...ownSets].map((set) => (
          <li key={set.id}>
            <button
              type="button"
              aria-pressed={set.name === name}
              title={set.tubes.map(shortName).join(', ')}
              onClick={() => {
                setTitle(undefined);
                palette.choose(set);
              }}
            >
              {set.name} <span className="quiet">{set.tubes.length}</span>
            </button>
            {ownSets.includes(set) && (
              <Button
                type="text"
                size="small"
                icon={<DeleteOutlined />}
                aria-label={`Remove the set ${set.name}`}
                onClick={() => void attempt(() => palette.removeSet(set.id))}
              />
            )}
          </li>
        ))}
      </ul>
      <Input
        size="small"
        value={called}
        maxLength={80}
        aria-label="Name of the set"
        onChange={(e) => setTitle(e.target.value)}
      />
      <Input.TextArea
        size="small"
        rows={3}
        value={note}
        maxLength={2000}
        aria-label="Plan of the colour"
        placeholder="What these tubes are for"
        onChange={(e) => palette.setNote(e.target.value)}
      />
      <div className={styles.planButtons}>
        <Button
          size="small"
          disabled={!called.trim() || TUBE_SETS.some((s) => s.name === called.trim())}
          onClick={() =>
            void attempt(async () => {
              await palette.saveSet(called.trim(), note, tubes);
              setTitle(undefined);
            })
          }
        >
          Keep as own set
        </Button>
        <Button size="small" onClick={share}>
          Share
        </Button>
        <FileButton size="small" accept=".json" label="Open a set of tubes" onFile={(file) => void open(file)}>
          Open file
        </FileButton>
      </div>
      {(trouble || palette.trouble) && (
        <p role="alert" className="trouble">
          {trouble || palette.trouble}
        </p>
      )}
      <h3>House rules</h3>
      <HouseRulesForm rules={rules} change={palette.setRules} />
      <p className="quiet">Spectra and labels of the tubes are made up, after published descriptions.</p>
    </div>
  );
}
