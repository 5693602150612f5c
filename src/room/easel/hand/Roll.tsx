'use client';
import { CloseOutlined, SearchOutlined, UndoOutlined } from '@ant-design/icons';
import { Button, Input, Tooltip } from 'antd';
import { useState } from 'react';
import { textOf } from '@/core/formats/textOf';
import { PainterError } from '@/core/errors';
import { FileButton } from '@/room/parts/FileButton';
import { fileName, saveFile } from '@/room/parts/saveFile';
import { useEasel } from '@/room/easel/easelStore';
import { jarAsFile, useJar } from './jarStore';
import { RollCard } from './Jar';
import { cardOf, ROLL } from './roll';
import easel from '../easel.module.css';
import styles from './hand.module.css';

/** The roll: all tools as painted marks, grouped by what the mark is like. */
export function Roll() {
  const { setOutAnew, stage } = useJar();
  const open = useEasel((s) => s.panel === 'roll');
  const [sought, setSought] = useState('');
  if (!open) return null;
  const words = sought.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const groups = ROLL.map(({ mark, cards }) => ({
    mark,
    cards: cards.filter(({ id, name, edge, hint }) => {
      const text = `${mark} ${id} ${name} ${edge} ${hint}`.toLowerCase();
      return words.every((word) => text.includes(word));
    }),
  })).filter(({ cards }) => cards.length > 0);
  return (
    <section className={easel.roll} aria-label="Roll">
      <header>
        <h2>Roll</h2>
        <Input
          size="small"
          prefix={<SearchOutlined />}
          placeholder="lost, line, broken, knife …"
          aria-label="Search the roll"
          value={sought}
          onChange={(e) => setSought(e.target.value)}
          allowClear
        />
        <span className={easel.spring} />
        <span className="quiet">draw a tool into the jar to keep it there</span>
        <Button type="link" onClick={setOutAnew}>
          Set the jar out for {stage} as at first
        </Button>
        <Button
          type="text"
          icon={<CloseOutlined />}
          aria-label="Roll up"
          onClick={() => useEasel.getState().togglePanel('roll')}
        />
      </header>
      <JarPlaces />
      <div className={styles.rollGroups}>
        {groups.map(({ mark, cards }) => (
          <div key={mark}>
            <h3>{mark}</h3>
            {cards.map(({ id }) => (
              <RollCard key={id} id={id} />
            ))}
          </div>
        ))}
        {groups.length === 0 && <p>No tool in the roll makes such a mark.</p>}
      </div>
    </section>
  );
}

/** What stands in the jar, to be named and shared. */
function JarPlaces() {
  const { stage, kit, jars, rename, plain, bring } = useJar();
  const [trouble, setTrouble] = useState('');
  return (
    <div className={styles.jarPlaces} role="group" aria-label="What stands in the jar">
      <span className="quiet">In the jar:</span>
      {jars[kit][stage].map((setup, place) => (
        <label key={setup.id}>
          {place + 1}
          <Input
            size="small"
            defaultValue={setup.name}
            placeholder={cardOf(setup.tool).name}
            maxLength={40}
            aria-label={`Name of place ${place + 1}`}
            onBlur={(event) => rename(place, event.target.value)}
            onPressEnter={(event) => event.currentTarget.blur()}
          />
          {Object.keys(setup.held).length > 0 && (
            <Tooltip title="Hold it as at first">
              <Button
                type="text"
                size="small"
                icon={<UndoOutlined />}
                aria-label={`Hold place ${place + 1} as at first`}
                onClick={() => plain(place)}
              />
            </Tooltip>
          )}
        </label>
      ))}
      <Button
        size="small"
        onClick={() => saveFile(fileName(`jar ${stage}`, 'jar.json'), jarAsFile(), 'application/json')}
      >
        Share
      </Button>
      <FileButton
        size="small"
        accept=".json"
        label="Open a jar of tools"
        onFile={(file) =>
          void file.arrayBuffer().then((bytes) => {
            try {
              bring(textOf(new Uint8Array(bytes)));
              setTrouble('');
            } catch (error) {
              setTrouble(error instanceof PainterError ? error.message : 'That file could not be read.');
            }
          })
        }
      >
        Open file
      </FileButton>
      {trouble && (
        <span className="trouble" role="alert">
          {trouble}
        </span>
      )}
    </div>
  );
}
