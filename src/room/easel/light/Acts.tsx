'use client';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import styles from './light.module.css';

/** One of the things that the hand can do on a drawing. */
export interface Act<Id extends string> {
  readonly id: Id;
  readonly name: string;
  readonly hint: string;
}

/** Chooses what the hand does, or that it paints; says what that is. @param children what else can be pressed there */
export function Acts<Id extends string>({
  label,
  acts,
  now,
  choose,
  children,
}: {
  label: string;
  acts: readonly Act<Id>[];
  now: Id | undefined;
  choose: (id: Id | undefined) => void;
  children?: ReactNode;
}) {
  return (
    <>
      <div className={styles.tools} role="group" aria-label={label}>
        {acts.map(({ id, name, hint }) => (
          <Button
            key={id}
            size="small"
            title={hint}
            type={now === id ? 'primary' : 'default'}
            aria-pressed={now === id}
            onClick={() => choose(now === id ? undefined : id)}
          >
            {name}
          </Button>
        ))}
        {children}
      </div>
      <p className="quiet">{acts.find(({ id }) => id === now)?.hint ?? 'The hand paints. Choose what to draw.'}</p>
    </>
  );
}
