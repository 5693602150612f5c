'use client';
import { CloseOutlined, SearchOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { useEasel } from '@/room/easel/easelStore';
import { useJar } from './jarStore';
import { RollCard } from './Jar';
import { ROLL } from './roll';
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
