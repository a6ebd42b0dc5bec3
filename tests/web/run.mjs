// Bundles the tests beside this file with the modules they are of, and runs them by Node's own runner.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const here = fileURLToPath(new URL('.', import.meta.url));
const { build } = createRequire(join(here, '../../web/package.json'))('rolldown');
const made = mkdtempSync(join(tmpdir(), 'gurvo-web-'));
const tests = readdirSync(here).filter((name) => name.endsWith('.test.ts'));
try {
  for (const name of tests)
    await build({
      input: join(here, name),
      platform: 'node',
      logLevel: 'warn',
      output: { file: join(made, name.replace('.ts', '.mjs')) },
    });
  const files = tests.map((name) => join(made, name.replace('.ts', '.mjs')));
  process.exitCode =
    spawnSync(process.execPath, ['--test', '--test-reporter=tap', ...files], { stdio: 'inherit' }).status ?? 1;
} finally {
  rmSync(made, { recursive: true });
}
