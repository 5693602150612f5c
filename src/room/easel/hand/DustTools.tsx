'use client';
import { Button, Space, Tooltip } from 'antd';
import { useEasel } from '@/room/easel/easelStore';

/** Fixative, and a breath: for dust on the layer that is painted on. */
export function DustTools() {
  const dusty = useEasel((s) => s.bench?.layers.find((l) => l.id === s.bench?.activeLayer)?.dusty ?? false);
  const apply = useEasel((s) => s.apply);
  if (!dusty) return null;
  return (
    <Space.Compact>
      <Tooltip title="Fixative: nothing smears what lies there, and the tooth takes dust again">
        <Button onClick={() => apply({ do: 'fix' })}>Fix</Button>
      </Tooltip>
      <Tooltip title="Blows off the dust that the tooth does not hold">
        <Button onClick={() => apply({ do: 'blow' })}>Blow</Button>
      </Tooltip>
    </Space.Compact>
  );
}
