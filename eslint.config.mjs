import nextVitals from 'eslint-config-next/core-web-vitals';
import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';
import { oneSource } from './scripts/oneSource.mjs';
import { staleView } from './scripts/staleView.mjs';

/** Rooms of the core, lowest first; those on one line stand side by side and do not see each other. */
const floors = [
  ['colour', 'surface'],
  ['mixing'],
  ['study'],
  ['film'],
  ['kernels'],
  ['flow'],
  ['marks', 'picture'],
  ['tools'],
  ['commands'],
  ['journal'],
  ['formats'],
];
/** What some of them have no need of, though it lies below. */
const apart = { kernels: ['colour', 'surface'], mixing: ['surface'] };

/** A room may import from those below it and from itself, never upwards or aside. */
const rooms = floors.flatMap((floor, n) =>
  floor.map((room) => ({
    folder: `src/core/${room}`,
    above: [...floor.filter((beside) => beside !== room), ...floors.slice(n + 1).flat(), ...(apart[room] ?? [])],
  })),
);

const direction = rooms.map(({ folder, above }) => ({
  files: [`${folder}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: above.map((room) => `@/core/${room}/*`),
            message: 'Imports never run upwards (docs/architecture.md).',
          },
          {
            group: ['@/engine/*', '@/room/*', '@/app/*', '@/cli/*', 'react', 'next/*', 'antd', 'node:*'],
            message: 'The core has no interface code and runs anywhere.',
          },
        ].filter((p) => p.group.length > 0),
      },
    ],
  },
}));

/** What a tool is like is said by its definition, and never asked by its name. */
const byName = {
  selector:
    'BinaryExpression[operator=/^[!=]==$/][right.type="Literal"]:matches([left.name=/^(tool|inHand)$/], [left.property.name=/^(tool|inHand)$/])',
  message: 'What a tool is like is said in src/core/tools/families: give its definition a word for it.',
};
const byDefinition = {
  files: ['src/{engine,room,cli,app}/**/*.{ts,tsx}'],
  ignores: ['**/*.test.ts'],
  rules: { 'no-restricted-syntax': ['error', byName] },
};

/** The last bit of these differs from engine to engine, and a journal must paint the same bytes in all of them. */
const sameBits = {
  files: ['src/core/**/*.ts'],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-syntax': [
      'error',
      byName,
      {
        selector:
          'MemberExpression[object.name="Math"][property.name=/^(exp|expm1|log|log2|log10|log1p|pow|sin|cos|tan|asin|acos|atan|atan2|sinh|cosh|tanh|cbrt|hypot)$/]',
        message: 'Its last bit differs between engines: take it from src/core/maths/maths.ts.',
      },
      {
        selector:
          'BinaryExpression[operator="**"]:not([right.value=2]):not([left.type="Literal"][right.type="Literal"])',
        message: 'Its last bit differs between engines: multiply, or take `maths.pow`.',
      },
    ],
  },
};

const outer = [
  { files: ['src/engine/**/*.ts'], group: ['@/room/*', '@/app/*', '@/cli/*', 'react', 'next/*', 'antd'] },
  {
    files: ['src/devices/**/*.ts'],
    group: ['@/engine/*', '@/room/*', '@/app/*', '@/cli/*', 'react', 'next/*', 'antd'],
  },
  {
    files: ['src/measure/**/*.ts'],
    group: ['@/engine/*', '@/room/*', '@/app/*', '@/cli/*', 'react', 'next/*', 'antd'],
  },
  { files: ['src/cli/**/*.ts'], group: ['@/engine/*', '@/room/*', '@/app/*', 'react', 'next/*', 'antd'] },
  { files: ['src/room/**/*.{ts,tsx}'], group: ['@/app/*', '@/cli/*'] },
].map(({ files, group }) => ({
  files,
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ group, message: 'Imports never run upwards (docs/architecture.md).' }] },
    ],
  },
}));

/** Views of the one memory are replaced when it grows; schemas come from the one place where Zod is set up. */
const house = {
  files: ['src/**/*.{ts,tsx}'],
  ignores: ['**/*.test.ts', 'src/core/film/arena.ts', 'src/core/schema.ts', 'src/engine/keeping/store.ts'],
  plugins: { house: { rules: { 'stale-view': staleView, 'one-source': oneSource } } },
  rules: {
    'house/stale-view': 'error',
    'house/one-source': ['error', { zod: '@/core/schema', localforage: '@/engine/keeping/store' }],
  },
};

export default tseslint.config(
  {
    ignores: [
      'simd/kernels.ts',
      'simd/layout.ts',
      'simd/light.ts',
      'simd/maths.ts',
      'simd/surfaceLook.ts',
      'simd/water.ts',
      'simd/wetLook.ts',
      '.next/**',
      'node_modules/**',
      'public/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...nextVitals,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { ignoreRestSiblings: true, argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { prefer: 'type-imports', fixStyle: 'inline-type-imports' },
      ],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  { files: ['simd/**', 'src/cli/**', 'demo/**', 'bench/**', 'scripts/**'], rules: { 'no-console': 'off' } },
  ...direction,
  ...outer,
  byDefinition,
  sameBits,
  house,
  prettier,
);
