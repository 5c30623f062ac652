import { readdirSync } from 'node:fs';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** What every room may use. */
const common = ['shared', 'theme'];
const rooms = readdirSync(new URL('./src', import.meta.url), { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map((entry) => entry.name);

/** A workspace imports no other workspace, the frame round them none, and what is common none of them. */
const apart = rooms.map((room) => ({
  files: [`src/${room}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: rooms
          .filter((other) => other !== room && !common.includes(other))
          .map((other) => ({ group: [`**/../${other}/*`], message: 'What two workspaces need belongs in shared/.' })),
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['dist', 'src/shared/api/generated', 'node_modules', 'public'] },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  ...apart,
);
