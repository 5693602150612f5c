'use client';
import { Button, Popover, Segmented } from 'antd';
import type { ToolSettings } from '@/core/tools/tools';
import { bodyWords, hundredths, percent } from '@/core/tools/dials';
import { Dial } from '@/room/easel/hand/Dial';
import { useEasel } from '@/room/easel/easelStore';
import easel from '../easel.module.css';
import styles from './bench.module.css';

/** How paint is made up, in a few words. */
export function makeWords({ vehicle, body, thin, solvent, gel, retarder }: ToolSettings): string {
  const words = [vehicle === 'oil' ? 'Oil' : 'Acrylic', bodyWords(body)];
  if (thin > 0) words.push(vehicle === 'oil' ? 'with medium' : 'with glazing medium');
  if (solvent > 0) words.push(vehicle === 'oil' ? 'with solvent' : 'with water');
  if (gel > 0) words.push('with gel');
  if (retarder > 0 && vehicle === 'acrylic') words.push('slowed');
  return words.join(', ');
}

/** What the paint that is loaded next is made up with: vehicle, body, medium, solvent, gel, retarder. */
export function PaintMake() {
  const settings = useEasel((s) => s.bench?.tool);
  const { apply } = useEasel.getState();
  if (!settings) return null;
  const set = (changes: Partial<ToolSettings>) => apply({ do: 'tool', tool: settings.tool, ...changes });
  const oil = settings.vehicle === 'oil';
  const content = (
    <div className={easel.make}>
      <Segmented
        size="small"
        block
        value={settings.vehicle}
        options={[
          { value: 'oil', label: 'Oil' },
          { value: 'acrylic', label: 'Acrylic' },
        ]}
        onChange={(vehicle) => set({ vehicle: vehicle as 'oil' | 'acrylic' })}
      />
      <Dial label="Body" value={settings.body} say={bodyWords} onSet={(body) => set({ body: hundredths(body) })} />
      <Dial
        label={oil ? 'Medium' : 'Glazing medium'}
        value={settings.thin}
        say={percent}
        onSet={(thin) => set({ thin: Math.min(0.97, hundredths(thin)) })}
        hint="Transparent and glossy: a glaze"
      />
      <Dial
        label={oil ? 'Solvent' : 'Water'}
        value={settings.solvent}
        say={percent}
        onSet={(solvent) => set({ solvent: Math.min(0.95, hundredths(solvent)) })}
        hint={oil ? 'Thin and lean: dries sooner, and matte' : 'Thin: a wash'}
      />
      <Dial
        label="Gel"
        value={settings.gel}
        say={percent}
        onSet={(gel) => set({ gel: Math.min(0.95, hundredths(gel)) })}
        hint="Thick and transparent"
      />
      {!oil && (
        <Dial
          label="Retarder"
          value={settings.retarder}
          say={percent}
          onSet={(retarder) => set({ retarder: hundredths(retarder) })}
          hint="Keeps acrylic open longer"
        />
      )}
      <p className="quiet">Holds for the paint that is loaded next.</p>
    </div>
  );
  return (
    <Popover trigger="click" placement="topLeft" content={content} title="Paint is made up with">
      <Button
        size="small"
        type="text"
        className={styles.makeButton}
        aria-label={`How the paint is made up: ${makeWords(settings)}`}
      >
        <span>{makeWords(settings)}</span>
      </Button>
    </Popover>
  );
}
