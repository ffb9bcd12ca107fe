// Adds to package-lock.json an entry for every optional platform package that the registry in use
// could not serve when the lock was made (npm drops those silently, and `npm ci` then refuses the
// lock with "Missing: X@ from lock file"). Run it after every `npm install` that changes the lock.
import { readFileSync, writeFileSync } from 'node:fs';

const file = new URL('../package-lock.json', import.meta.url);
const lock = JSON.parse(readFileSync(file, 'utf8'));
const pkgs = lock.packages;
const OS = ['linux', 'darwin', 'win32', 'android', 'freebsd', 'openbsd', 'netbsd', 'sunos', 'aix', 'openharmony'];
const CPU = [
  ['loong64', 'loong64'],
  ['riscv64', 'riscv64'],
  ['ppc64', 'ppc64'],
  ['s390x', 's390x'],
  ['arm64', 'arm64'],
  ['arm', 'arm'],
  ['ia32', 'ia32'],
  ['x64', 'x64'],
  ['wasm32', 'wasm32'],
];
const find = (from, name) => {
  for (let p = from; ; p = p.slice(0, Math.max(0, p.lastIndexOf('/node_modules/')))) {
    const key = `${p ? p + '/' : ''}node_modules/${name}`;
    if (pkgs[key]) return key;
    if (!p) return null;
    if (!p.includes('/node_modules/')) p = '';
    if (p === '') {
      const k = `node_modules/${name}`;
      return pkgs[k] ? k : null;
    }
  }
};
let added = 0;
for (const [path, entry] of Object.entries({ ...pkgs })) {
  for (const [name, spec] of Object.entries(entry.optionalDependencies ?? {})) {
    if (find(path, name)) continue;
    const os = OS.find((o) => new RegExp(`-${o}(-|$)`).test(name));
    const cpu = CPU.find(([k]) => new RegExp(`-${k}(-|$)`).test(name))?.[1];
    if (!os || !/^\d+\.\d+\.\d+/.test(spec)) {
      console.warn(`not filled: ${name}@${spec} (of ${path})`);
      continue;
    }
    pkgs[`node_modules/${name}`] = {
      version: spec,
      ...(cpu ? { cpu: [cpu] } : {}),
      ...(entry.dev ? { dev: true } : {}),
      ...(/-musl/.test(name) ? { libc: ['musl'] } : /-gnu/.test(name) && os === 'linux' ? { libc: ['glibc'] } : {}),
      optional: true,
      os: [os],
    };
    added++;
  }
}
lock.packages = Object.fromEntries(Object.entries(pkgs).sort(([a], [b]) => a.localeCompare(b, 'en')));
writeFileSync(file, JSON.stringify(lock, null, 2) + '\n');
console.log(`lock-fill: ${added} added`);
