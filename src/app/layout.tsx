import '@fontsource-variable/source-sans-3';
import '@fontsource-variable/source-serif-4';
import { AntdRegistry } from '@ant-design/nextjs-registry';
import type { Metadata, Viewport } from 'next';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Room } from '@/room/Room';
import '@/room/room.css';

export const metadata: Metadata = {
  title: 'Stigmos',
  description: 'A painter’s room: oil paint that mixes as pigments, on linen, from a photo.',
};

export const viewport: Viewport = {
  width: 'device-width',
  initialScale: 1,
  themeColor: '#9a9a98',
};

export default async function Layout({ children }: { children: ReactNode }) {
  // each answer carries a nonce of its own, so pages are made when they are asked for
  await connection();
  return (
    <html lang="en">
      <body>
        <AntdRegistry>
          <Room>{children}</Room>
        </AntdRegistry>
      </body>
    </html>
  );
}
