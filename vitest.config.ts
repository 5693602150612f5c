import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.{ts,tsx}', 'demo/**/*.test.ts'],
    setupFiles: ['src/measure/propertySetup.ts'],
    testTimeout: 120_000,
    pool: 'forks',
    // files of a process share what they have loaded: nothing in the house is changed by loading it
    isolate: false,
    maxWorkers: 2,
  },
});
