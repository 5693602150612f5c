'use client';
import { Button } from 'antd';
import { useEasel } from './easelStore';
import { FEATURES, releaseHand } from './features';
import styles from './easel.module.css';

/** The spine at the right edge: opens one drawer at a time. */
export function Spine() {
  const drawer = useEasel((s) => s.drawer);
  const set = useEasel((s) => s.set);
  const open = FEATURES.find(({ id }) => id === drawer);
  return (
    <>
      {open && (
        <section className={styles.drawer} aria-label={open.name}>
          <open.Drawer />
        </section>
      )}
      <nav className={styles.spine} aria-label="Drawers">
        {FEATURES.map(({ id, name, icon }) => (
          <Button
            key={id}
            type={drawer === id ? 'primary' : 'text'}
            icon={icon}
            aria-label={name}
            aria-expanded={drawer === id}
            onClick={() => {
              releaseHand();
              set({ drawer: drawer === id ? null : id });
            }}
          >
            {name}
          </Button>
        ))}
      </nav>
    </>
  );
}
