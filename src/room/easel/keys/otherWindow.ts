import { letGo } from '@/room/easel/canvas/holds';

/** Where keys write and do nothing else. */
const FIELDS = 'input, textarea, select, [contenteditable]';

/**
 * Keys that are pressed in another window of the app do here what they do in the main one.
 * @returns how to stop that
 */
export function listenIn(other: Window): () => void {
  const pass = (event: KeyboardEvent) => {
    // of the other window's kind of element, which is not this window's
    const target = event.target as Partial<Element> | null;
    if (target?.matches?.(FIELDS)) return;
    const { key, code, ctrlKey, metaKey, altKey, shiftKey, repeat } = event;
    const again = new KeyboardEvent(event.type, {
      key,
      code,
      ctrlKey,
      metaKey,
      altKey,
      shiftKey,
      repeat,
      bubbles: true,
      cancelable: true,
    });
    document.body.dispatchEvent(again);
    if (again.defaultPrevented) event.preventDefault();
  };
  other.addEventListener('keydown', pass);
  other.addEventListener('keyup', pass);
  other.addEventListener('blur', letGo);
  return () => {
    other.removeEventListener('keydown', pass);
    other.removeEventListener('keyup', pass);
    other.removeEventListener('blur', letGo);
  };
}
