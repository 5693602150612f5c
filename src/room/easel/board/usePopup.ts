'use client';
import { useEffect, useState } from 'react';
import { listenIn } from '@/room/easel/keys/otherWindow';

/**
 * A second window that wears this page's styles, while it is wanted.
 * @returns its body to draw into; undefined while it is closed, or where the browser does not open one
 */
export function usePopup(wanted: boolean, title: string, onClose: () => void): HTMLElement | undefined {
  const [body, setBody] = useState<HTMLElement>();
  useEffect(() => {
    if (!wanted) return;
    const opened = window.open('', '', 'width=980,height=760');
    if (!opened) {
      onClose();
      return;
    }
    opened.document.title = title;
    const dress = () => {
      opened.document.head.replaceChildren(
        ...[...document.querySelectorAll('style, link[rel=stylesheet]')].map((node) => node.cloneNode(true)),
      );
      opened.document.title = title;
    };
    dress();
    opened.document.documentElement.className = document.documentElement.className;
    // styles of components come as they are first shown
    const watch = new MutationObserver(dress);
    watch.observe(document.head, { childList: true, subtree: true });
    const watched = setInterval(() => opened.closed && onClose(), 400);
    const stopListening = listenIn(opened);
    queueMicrotask(() => setBody(opened.document.body));
    const leave = () => opened.close();
    window.addEventListener('pagehide', leave);
    return () => {
      clearInterval(watched);
      watch.disconnect();
      window.removeEventListener('pagehide', leave);
      stopListening();
      setBody(undefined);
      opened.close();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the window is opened once for as long as it is wanted
  }, [wanted]);
  return body;
}
