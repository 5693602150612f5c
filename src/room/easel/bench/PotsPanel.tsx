'use client';
import { CloseOutlined, DeleteOutlined } from '@ant-design/icons';
import { Button, Input, Popconfirm, Switch } from 'antd';
import { useState } from 'react';
import { textOf } from '@/core/formats/textOf';
import { PainterError } from '@/core/errors';
import { MOST_ROWS, ROW, type Pot } from '@/room/colour/pots';
import { potsAsFile, usePots, type PotSet } from '@/room/colour/potStore';
import { useEasel } from '@/room/easel/easelStore';
import { Drawdown } from '@/room/parts/Drawdown';
import { FileButton } from '@/room/parts/FileButton';
import { recipeWords } from '@/core/colour/recipeWords';
import { fileName, saveFile } from '@/room/parts/saveFile';
import { isKnown } from './PotRow';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** The pots, laid over the lower part of the view: their names, and the sets that are put away and shared. */
export function PotsPanel() {
  const open = useEasel((s) => s.panel === 'pots');
  const { pots, rows, setRows, clear, trouble } = usePots();
  if (!open) return null;
  const some = pots.some(Boolean);
  return (
    <section className={`${easel.roll} ${styles.potsPanel}`} aria-label="All pots">
      <header>
        <h2>Pots</h2>
        <span className="quiet">a click on an empty pot keeps the mixture in hand; draw one to another place</span>
        <span className={easel.spring} />
        <label className={styles.potRows}>
          <Switch size="small" checked={rows > 1} onChange={(two) => setRows(two ? MOST_ROWS : 1)} /> a second row
        </label>
        <Popconfirm title="Empty all pots?" okText="Empty them" cancelText="Leave them" onConfirm={clear}>
          <Button type="link" disabled={!some}>
            Empty all
          </Button>
        </Popconfirm>
        <Button
          type="text"
          icon={<CloseOutlined />}
          aria-label="Close the pots"
          onClick={() => useEasel.getState().togglePanel('pots')}
        />
      </header>
      <div className={styles.potsBody}>
        <ul className={styles.potCards}>
          {pots.slice(0, rows * ROW).map((pot, place) => pot && <PotCard key={place} pot={pot} place={place} />)}
          {!some && <li className="quiet">Nothing is kept in the pots yet.</li>}
        </ul>
        <Sets />
      </div>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </section>
  );
}

function PotCard({ pot, place }: { pot: Pot; place: number }) {
  const { rename, empty } = usePots.getState();
  const known = isKnown(pot);
  return (
    <li className={styles.potCard}>
      <button
        type="button"
        disabled={!known}
        aria-label={`Take the colour of pot ${place + 1}`}
        onClick={() => useEasel.getState().loadMixture({ ...pot.mixture })}
      >
        {known && <Drawdown mixture={pot.mixture} className={styles.potDrawdown} />}
      </button>
      <div>
        <Input
          size="small"
          defaultValue={pot.name}
          key={pot.name}
          maxLength={60}
          placeholder="Name"
          aria-label={`Name of pot ${place + 1}`}
          onBlur={(event) => rename(place, event.target.value)}
          onPressEnter={(event) => event.currentTarget.blur()}
        />
        <span className="quiet">{known ? recipeWords(pot.mixture) : 'a paint that is not here'}</span>
      </div>
      <Button
        type="text"
        size="small"
        icon={<CloseOutlined />}
        aria-label={`Empty pot ${place + 1}`}
        onClick={() => empty(place)}
      />
    </li>
  );
}

/** Sets that are put away under a name, and files of them. */
function Sets() {
  const sets = usePots((s) => s.sets);
  const { putAway, bring } = usePots.getState();
  const some = usePots((s) => s.pots.some(Boolean));
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState('');
  const attempt = async (work: () => Promise<void> | void) => {
    setTrouble('');
    try {
      await work();
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : 'That could not be done.');
    }
  };
  return (
    <div className={styles.potSets}>
      <h3>Sets of pots</h3>
      <ul>
        {sets.map((set) => (
          <SetLine key={set.id} set={set} />
        ))}
        {sets.length === 0 && <li className="quiet">None is put away yet.</li>}
      </ul>
      <Input
        size="small"
        value={name}
        maxLength={80}
        placeholder="Boathouse, grey light"
        aria-label="Name of the set of pots"
        onChange={(event) => setName(event.target.value)}
      />
      <div className={styles.potActs}>
        <Button
          size="small"
          disabled={!some || !name.trim()}
          onClick={() => {
            putAway(name);
            setName('');
          }}
        >
          Put away
        </Button>
        <Button
          size="small"
          disabled={!some}
          onClick={() =>
            void attempt(() => saveFile(fileName(name || 'pots', 'pots.json'), potsAsFile(name), 'application/json'))
          }
        >
          Share
        </Button>
        <FileButton
          size="small"
          accept=".json"
          label="Open a set of pots"
          onFile={(file) =>
            void attempt(async () => {
              await bring(textOf(new Uint8Array(await file.arrayBuffer())));
            })
          }
        >
          Open file
        </FileButton>
      </div>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}

function SetLine({ set }: { set: PotSet }) {
  const { setOut, removeSet } = usePots.getState();
  return (
    <li>
      <Button type="link" size="small" onClick={() => setOut(set)} aria-label={`Set out ${set.name}`}>
        {set.name}
      </Button>
      <span className="quiet">{set.pots.length}</span>
      <Button
        type="text"
        size="small"
        icon={<DeleteOutlined />}
        aria-label={`Remove the pots ${set.name}`}
        onClick={() => removeSet(set.id)}
      />
    </li>
  );
}
