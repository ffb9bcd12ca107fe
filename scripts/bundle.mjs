// Bundles server-side entries with esbuild; npm packages stay in node_modules.
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));

/** @param from the folder of the entries, as `outdir` below the repository */
export const bundle = (from, entries, outdir) =>
  build({
    absWorkingDir: root,
    entryPoints: entries.map((entry) => `${from}/${entry}`),
    outbase: from,
    outdir,
    bundle: true,
    platform: 'node',
    target: 'node20',
    // Node 20 has \p{...}; esbuild doubts it for scripts of newer years, and would build such a pattern at each use.
    supported: { 'regexp-unicode-property-escapes': true },
    format: 'esm',
    sourcemap: true,
    packages: 'external',
    // Node would want an import attribute for this JSON; inlined it needs none.
    alias: { 'email-providers/common.json': `${root}node_modules/email-providers/common.json` },
    tsconfig: 'tsconfig.base.json',
    logLevel: 'warning',
  });
