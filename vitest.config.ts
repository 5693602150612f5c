import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.{ts,tsx}', 'demo/**/*.test.ts'],
    setupFiles: ['src/measure/propertySetup.ts'],
    testTimeout: 120_000,
    pool: 'forks',
    maxWorkers: 2,
  },
});
