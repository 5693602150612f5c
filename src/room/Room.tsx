'use client';
import { App, ConfigProvider } from 'antd';
import type { ReactNode } from 'react';
import { NewVersion } from './NewVersion';
import { theme } from './theme';

/** The room around every screen: its light and its type. */
export function Room({ children }: { children: ReactNode }) {
  return (
    <ConfigProvider theme={theme} componentSize="small">
      <App className="room">
        <NewVersion />
        {children}
      </App>
    </ConfigProvider>
  );
}
