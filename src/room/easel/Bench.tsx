'use client';
import { InHand } from './InHand';
import { Jar } from './Jar';
import { MixtureTray } from './MixtureTray';
import { Tubes } from './Tubes';
import styles from './easel.module.css';

/** The bench under the canvas: hands reach down, and not up into menus. */
export function Bench() {
  return (
    <footer className={styles.bench}>
      <Tubes />
      <MixtureTray />
      <Jar />
      <InHand />
    </footer>
  );
}
