/**
 * Completes package-lock.json with the optional packages for other platforms that the registry at hand did not offer when
 * it was written; without them `npm ci` takes the lock for stale. Run after changing dependencies.
 */
import { readFileSync, writeFileSync } from 'node:fs';

const file = 'package-lock.json';
const lock = JSON.parse(readFileSync(file, 'utf8'));
const added = [];

for (const [path, entry] of Object.entries(lock.packages)) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    const places = [`${path}/node_modules/${name}`, `node_modules/${name}`];
    if (path === '' || places.some((place) => lock.packages[place]) || !/^\d/.test(version)) continue;
    const os = name.match(/darwin|win32|android|freebsd|linux|openharmony/)?.[0];
    const cpu = name.match(/arm64|x64|wasm32|ia32|arm|riscv64|s390x|ppc64|loong64/)?.[0];
    lock.packages[`node_modules/${name}`] = {
      version,
      ...(cpu && { cpu: [cpu] }),
      ...(entry.dev && { dev: true }),
      license: entry.license,
      optional: true,
      ...(os && { os: [os] }),
    };
    added.push(name);
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`);
console.log(`${added.length} added`);
