'use client';
import { Button, Checkbox, Dropdown, Segmented, Select, Tooltip } from 'antd';
import { BLEND_MODES } from '@/core/colour/blendModes';
import type { Command } from '@/core/commands/commands';
import type { LayerState } from '@/engine/protocol';
import { AdjustPanel } from './AdjustPanel';
import { percent } from '@/core/tools/dials';
import { Dial } from '@/room/easel/hand/Dial';
import { mixtureOf, useEasel } from '@/room/easel/easelStore';
import { BLEND_WORDS } from './layerWords';
import styles from './layers.module.css';

type Look = Omit<Extract<Command, { do: 'layer.set' }>, 'do' | 'layer'>;

/** Everything that can be said of the layer that is painted on. */
export function LayerCard({
  layer,
  layers,
  onMask,
}: {
  layer: LayerState;
  layers: readonly LayerState[];
  onMask: boolean;
}) {
  const apply = useEasel((s) => s.apply);
  const engine = useEasel((s) => s.engine);
  const parts = useEasel((s) => s.parts);
  const grey = useEasel((s) => s.bench?.tool.grey ?? 0);
  const tool = useEasel((s) => s.bench?.tool.tool);
  const set = (look: Look) => apply({ do: 'layer.set', layer: layer.id, ...look });
  const mask = (how: Extract<Command, { do: 'layer.mask' }>['how']) =>
    apply({ do: 'layer.mask', layer: layer.id, how });
  const film = layer.kind === 'paint' || layer.kind === 'drawing';
  const mixture = mixtureOf(parts);
  const groups = layers.filter((l) => l.kind === 'group' && l.id !== layer.id);
  const toggles: {
    key: 'clip' | 'onlyPaint' | 'wetThrough' | 'impress';
    label: string;
    does: string;
    film?: boolean;
  }[] = [
    { key: 'clip', label: 'Clip to the layer below', does: 'Seen only where the layer below has something.' },
    {
      key: 'onlyPaint',
      label: 'Only where there is paint',
      does: 'Takes paint only where it has some already.',
      film: true,
    },
    {
      key: 'wetThrough',
      label: 'Wet through',
      does: 'A brush takes up wet paint from the layer below and works it in.',
      film: true,
    },
    { key: 'impress', label: 'Impress', does: 'The relief of the layers below catches a dry brush.', film: true },
  ];
  const masks = [
    { key: 'show', label: 'All shown (paint black to hide)', onClick: () => mask('show') },
    { key: 'hide', label: 'All hidden (paint white to show)', onClick: () => mask('hide') },
    { key: 'selection', label: 'As selected', onClick: () => mask('selection') },
  ];
  return (
    <section className={styles.card} aria-label={`${layer.name}`}>
      <h3>{layer.name}</h3>
      {layer.adjust && <AdjustPanel layer={layer} adjust={layer.adjust} />}
      <Dial
        label="Opacity"
        value={layer.opacity}
        say={percent}
        onSet={(v) => set({ opacity: Math.round(v * 100) / 100 })}
        onTry={(opacity) => engine?.tryLook(layer.id, { opacity })}
        hint="How much of its effect is seen; its paint stays as it is"
      />
      {layer.kind !== 'group' && (
        <>
          <Select
            size="small"
            aria-label="How it meets what is below"
            value={layer.blend}
            options={BLEND_MODES.map((value) => ({ value, label: BLEND_WORDS[value].name }))}
            onChange={(blend) => set({ blend })}
          />
          <p className={styles.caption}>
            {layer.kind === 'picture' || layer.kind === 'tone' || layer.kind === 'adjust'
              ? layer.blend === 'normal'
                ? 'Lies over what is below.'
                : BLEND_WORDS[layer.blend].does
              : BLEND_WORDS[layer.blend].does}
          </p>
        </>
      )}
      <div>
        {toggles
          .filter((t) => film || !t.film)
          .map(({ key, label, does }) => (
            <Tooltip key={key} title={does} placement="left" mouseEnterDelay={0.4}>
              <Checkbox
                checked={layer[key]}
                onChange={(e) => set({ [key]: e.target.checked })}
                style={{ display: 'flex' }}
              >
                {label}
              </Checkbox>
            </Tooltip>
          ))}
        <Checkbox
          checked={layer.locked}
          onChange={(e) => set({ locked: e.target.checked })}
          style={{ display: 'flex' }}
        >
          Locked
        </Checkbox>
      </div>
      <p className={styles.caption}>Hold B to see the picture without it.</p>
      {groups.length > 0 && (
        <Select
          size="small"
          aria-label="Group"
          value={layer.group ?? ''}
          options={[
            { value: '', label: 'In no group' },
            ...groups.map((g) => ({ value: g.id, label: `In ${g.name}` })),
          ]}
          onChange={(id) =>
            apply({
              do: 'layer.move',
              layer: layer.id,
              to: layers.findIndex((l) => l.id === (id || layer.id)),
              group: id || null,
            })
          }
        />
      )}
      {layer.mask ? (
        <div className={styles.row}>
          <Button
            size="small"
            type={onMask ? 'primary' : 'default'}
            aria-pressed={onMask}
            onClick={() => apply({ do: 'layer.choose', layer: layer.id, part: onMask ? 'layer' : 'mask' })}
          >
            Paint the mask
          </Button>
          <Button size="small" onClick={() => set({ maskOn: !layer.mask!.on })}>
            {layer.mask.on ? 'Off' : 'On'}
          </Button>
          <Button size="small" onClick={() => mask('invert')}>
            Turn round
          </Button>
          <Button size="small" onClick={() => mask('remove')}>
            Take off
          </Button>
        </div>
      ) : (
        <Dropdown menu={{ items: masks }} trigger={['click']}>
          <Button size="small">Add a mask</Button>
        </Dropdown>
      )}
      {layer.mask && onMask && tool && (
        <div className={styles.row}>
          <span className="quiet">The brush paints</span>
          <Segmented
            size="small"
            aria-label="What is painted on the mask"
            value={grey === 0 || grey === 1 ? grey : 0.5}
            options={[
              { value: 0, label: 'black' },
              { value: 0.5, label: 'grey' },
              { value: 1, label: 'white' },
            ]}
            onChange={(v) => apply({ do: 'tool', tool, grey: v })}
          />
        </div>
      )}
      <div className={styles.row}>
        <Button size="small" onClick={() => apply({ do: 'layer.duplicate', layer: layer.id })}>
          Duplicate
        </Button>
        {layer.kind !== 'group' && (
          <Button size="small" onClick={() => apply({ do: 'layer.merge', layer: layer.id })}>
            Merge down
          </Button>
        )}
        {film && (
          <Tooltip title="A paint layer under this one, filled with the mixture where the layers from here up have paint">
            <Button
              size="small"
              disabled={Object.keys(mixture).length === 0}
              onClick={() => apply({ do: 'layer.base', layer: layer.id, mixture, thicknessUm: 60 })}
            >
              New base below
            </Button>
          </Tooltip>
        )}
        <Tooltip title="With its paint (can be undone)">
          <Button
            size="small"
            aria-label={`Remove ${layer.name}`}
            onClick={() => apply({ do: 'layer.remove', layer: layer.id })}
          >
            Remove
          </Button>
        </Tooltip>
      </div>
    </section>
  );
}
