'use client';
import { Button, Tooltip } from 'antd';
import { useState } from 'react';
import type { FromBackup } from '@/engine/files/backupWorker';
import { saveFile } from '../parts/saveFile';

/** Sends all paintings out as one archive, which can be opened here or elsewhere again. */
export function SendOutAll({ onDone, onTrouble }: { onDone: () => void; onTrouble: (why: string) => void }) {
  const [progress, setProgress] = useState('');
  const pack = () => {
    onTrouble('');
    setProgress('…');
    const worker = new Worker(new URL('../../engine/files/backupWorker.ts', import.meta.url), { type: 'module' });
    const end = (why = '') => {
      worker.terminate();
      setProgress('');
      if (why) onTrouble(why);
      else onDone();
    };
    worker.onmessage = async ({ data }: MessageEvent<FromBackup>) => {
      if (data.say === 'progress') setProgress(` ${data.done} of ${data.total}`);
      else if (data.say === 'done') {
        saveFile(`paintings-${new Date().toISOString().slice(0, 10)}.zip`, data.archive, 'application/zip');
        end();
      } else {
        reportError(new Error(data.fault));
        end('The paintings could not be packed: send them out one by one.');
      }
    };
    worker.onerror = () => end('The paintings could not be packed: send them out one by one.');
    worker.postMessage('pack');
  };
  return (
    <Tooltip title="One file with all paintings, to be put somewhere safe and opened again">
      <Button size="middle" loading={progress !== ''} onClick={pack}>
        {progress ? `Sending out${progress}` : 'Send out all'}
      </Button>
    </Tooltip>
  );
}
