'use client';
import { Tooltip } from 'antd';
import { JAR, useEasel } from './easelStore';
import styles from './easel.module.css';

/** The jar: six tools, each shown by the mark it makes from light to heavy pressure. */
export function Jar() {
  const inHand = useEasel((s) => s.bench?.tool.tool);
  const takeTool = useEasel((s) => s.takeTool);
  return (
    <section className={styles.jar} aria-label="Jar">
      <h3>Jar</h3>
      <div className={styles.marks}>
        {JAR.map(({ id, name, edge }, i) => (
          <Tooltip key={id} title={`${name}: ${edge} (key ${i + 1})`}>
            <button
              type="button"
              aria-pressed={inHand === id}
              aria-label={`Take the ${name}`}
              onClick={() => takeTool(id)}
            >
              {/* eslint-disable-next-line @next/next/no-img-element -- a small fixed picture */}
              <img src={`/marks/${id}.png`} alt="" width={104} height={34} draggable={false} />
              <span>
                <span className={styles.digit}>{i + 1}</span> {name}
              </span>
            </button>
          </Tooltip>
        ))}
      </div>
    </section>
  );
}
