/**
 * Setting up, with nothing but Node: installs the locked packages and builds the application, each only when what it
 * depends on has changed since the last time. Plain JavaScript, because it runs before anything is installed.
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Runs a command and stops with its exit code if it fails. */
export function run(command, args, env = {}) {
  const { status, error } = spawnSync(command, args, {
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  if (error) console.error(`  ${command} can't be run: ${error.message}`);
  if (status !== 0) process.exit(status ?? 1);
}

/** Runs a package's command without going through npm. */
export const runBin = (name, args, env = {}) => run(process.execPath, [binOf(name), ...args], env);

/** Runs one of our TypeScript files. */
export const runScript = (file, args = [], env = {}) =>
  run(process.execPath, ['--import', 'tsx', file, ...args], env);

/** The script file behind a package's command. */
export function binOf(name, command = name) {
  const manifest = JSON.parse(readFileSync(`node_modules/${name}/package.json`, 'utf8'));
  const bin = typeof manifest.bin === 'string' ? manifest.bin : manifest.bin[command];
  return join('node_modules', name, bin);
}

function filesBelow(path) {
  if (!existsSync(path)) return [];
  return readdirSync(path, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
    .sort();
}

function hashOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths) hash.update(path).update('\0').update(readFileSync(path)).update('\0');
  return hash.digest('hex');
}

function unlessSame(stamp, hash, work) {
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  work();
  writeFileSync(stamp, hash);
}

/** Installs the packages of the lock file. */
export function install() {
  unlessSame('node_modules/.trivet-installed', hashOf(['package-lock.json']), () => {
    console.log('  Installing packages …');
    run('npm', ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error']);
    mkdirSync('node_modules', { recursive: true });
  });
}

/** Builds the application for production. */
export function build() {
  const sources = ['src', 'till', 'drizzle']
    .flatMap(filesBelow)
    .filter((path) => !/\.test\.tsx?$/.test(path));
  const inputs = [
    ...sources,
    'package-lock.json',
    'next.config.ts',
    'tsconfig.json',
    ...[
      'build-assets',
      'build-compile-hints',
      'build-server',
      'build-database',
      'serve',
      'data-folder',
      'machine-door',
      'watching',
    ].map((name) => `scripts/${name}.ts`),
  ];
  unlessSame('.next/.trivet-built', hashOf(inputs), () => {
    console.log('  Building …');
    runScript('scripts/build-assets.ts');
    runBin('next', ['build']);
    runScript('scripts/build-compile-hints.ts');
    runScript('scripts/build-server.ts');
    runScript('scripts/build-database.ts');
  });
}
