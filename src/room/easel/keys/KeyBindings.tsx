'use client';
import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { letGo } from '@/room/easel/canvas/holds';
import type { KeyAct } from './keyAct';
import { KEY_ACTS } from './keyActs';
import { keysOf, useKeyStore } from './keyStore';

/** A list that hangs open at a field takes what is typed there, Escape too. */
const listIsOpen = ({ target }: KeyboardEvent): boolean =>
  target instanceof Element && target.closest('[role=combobox]')?.getAttribute('aria-expanded') === 'true';

/** Listens to the keys of one act. Typing in a field is left alone, but for what is heard there too. */
function Bound({ act, keys }: { act: KeyAct; keys: readonly string[] }) {
  useHotkeys(
    keys.join(', '),
    (event) => {
      if (listIsOpen(event)) return;
      const down = event.type === 'keydown';
      if (act.hold && !event.repeat) act.hold(down);
      if (act.press && down) act.press();
    },
    {
      keydown: true,
      keyup: act.hold !== undefined,
      preventDefault: !act.inFields,
      enabled: keys.length > 0,
      enableOnFormTags: act.inFields,
      // asked before the field itself has closed its list
      eventListenerOptions: { capture: act.inFields === true },
    },
    [act, keys],
  );
  return null;
}

/** All keys of the easel, as this painter has them. */
export function KeyBindings() {
  const changes = useKeyStore((s) => s.changes);
  const read = useKeyStore((s) => s.read);
  useEffect(() => {
    void read();
    const hidden = () => document.visibilityState === 'hidden' && letGo();
    window.addEventListener('blur', letGo);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      window.removeEventListener('blur', letGo);
      document.removeEventListener('visibilitychange', hidden);
    };
  }, [read]);
  return KEY_ACTS.map((act) => <Bound key={act.id} act={act} keys={keysOf(act, changes)} />);
}
