'use client';
import { Button, Dropdown, Space, Tooltip } from 'antd';
import { isPaper } from '@/core/surface/paper';
import { useEasel } from '@/room/easel/easelStore';

/** A sheet on a wall takes five minutes and more to dry: nobody wants to wait for it unless they say so. */
const PACES = [
  { pace: 0.2, name: 'As slow as real paper' },
  { pace: 0.5, name: 'Half as fast' },
  { pace: 1, name: 'Usual: about five times real paper' },
  { pace: 2, name: 'Twice as fast' },
  { pace: 4, name: 'Four times as fast' },
];
/** Below this share of its pace water is said to be slow. */
const SLOW = 0.6;
/** Degrees by which the board is tilted. */
const TILTS = [
  { key: '0,0', name: 'Lies flat' },
  { key: '0,5', name: 'Tilted a little towards you' },
  { key: '0,15', name: 'Steep, towards you' },
  { key: '0,-10', name: 'Tilted away' },
  { key: '-10,0', name: 'Left side down' },
  { key: '10,0', name: 'Right side down' },
];

/** Time and water: holding the clock of wet paper, its pace, mist, and the tilt of the board. */
export function WaterTools() {
  const paper = useEasel((s) => isPaper(s.opened?.spec.surface.kind ?? 'panel'));
  const water = useEasel((s) => s.bench?.water ?? false);
  const clock = useEasel((s) => s.bench?.clock ?? 1);
  const lag = useEasel((s) => s.bench?.clockLag ?? 1);
  const tilt = useEasel((s) => s.bench?.tilt.join() ?? '0,0');
  const { apply, setClock } = useEasel.getState();
  if (!paper && !water) return null;
  return (
    <Space.Compact>
      <Tooltip title={clock === 0 ? 'Water stands still: let it go on (H)' : 'Stop the water to think (H)'}>
        <Button
          type={clock === 0 ? 'primary' : 'default'}
          aria-pressed={clock === 0}
          onClick={() => setClock(clock === 0 ? 1 : 0)}
        >
          Hold
        </Button>
      </Tooltip>
      <Tooltip title="Clear water from a sprayer: wet stays wet, dry gets damp">
        <Button onClick={() => apply({ do: 'mist', amount: 0.5 })}>Mist</Button>
      </Tooltip>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { type: 'group', label: 'The board', children: TILTS.map(({ key, name }) => ({ key, label: name })) },
            {
              type: 'group',
              label: 'Drying',
              children: PACES.map(({ pace, name }) => ({ key: String(pace), label: name })),
            },
          ],
          selectedKeys: [tilt, String(clock)],
          onClick: ({ key }) => {
            const [x, y] = key.split(',').map(Number);
            if (key.includes(',')) apply({ do: 'tilt', x, y });
            else setClock(x);
          },
        }}
      >
        <Button aria-label="Tilt of the board, and how fast it dries">{tilt === '0,0' ? 'Board' : 'Tilted'}</Button>
      </Dropdown>
      {lag < SLOW && (
        <Tooltip
          title={`So much of the sheet is wet that water goes ${Math.round(1 / lag)} times slower while you paint`}
        >
          <Button type="text">slow water</Button>
        </Tooltip>
      )}
    </Space.Compact>
  );
}
