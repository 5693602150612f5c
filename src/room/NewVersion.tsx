'use client';
import { Button } from 'antd';
import { useEffect, useState } from 'react';

/**
 * Lets the app work without a network after the first visit, and says when a newer version is there. That is used when
 * the painter wants it, never by itself.
 */
export function NewVersion() {
  const [waiting, setWaiting] = useState<ServiceWorker>();
  useEffect(() => {
    if (!('serviceWorker' in navigator) || process.env.NODE_ENV !== 'production') return;
    const worker = navigator.serviceWorker;
    const registered = worker.register('/sw.js').then(() => worker.getRegistration());
    registered.then(
      (registration) => {
        if (!registration) return;
        const look = () => {
          if (registration.waiting && worker.controller) setWaiting(registration.waiting);
        };
        look();
        registration.addEventListener('updatefound', () =>
          registration.installing?.addEventListener('statechange', look),
        );
      },
      () => {
        // without it the app needs its server, as before
      },
    );
  }, []);
  if (!waiting) return null;
  const use = () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
    waiting.postMessage('use it now');
  };
  return (
    <p className="new-version" role="status">
      A newer version of Stigmos is there.
      <Button type="link" onClick={use}>
        Use it now
      </Button>
      <Button type="link" onClick={() => setWaiting(undefined)}>
        Later
      </Button>
    </p>
  );
}
