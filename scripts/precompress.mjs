// Writes .br and .gz beside every compressible file of the built web app (served by @fastify/static's preCompressed).
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const root = new URL('../dist/web/browser', import.meta.url).pathname;
for (const e of readdirSync(root, { recursive: true })) {
  const f = join(root, String(e));
  if (!statSync(f).isFile() || !['.js', '.css', '.html', '.svg', '.json'].includes(extname(f))) continue;
  const b = readFileSync(f);
  if (b.length < 1024) continue;
  writeFileSync(f + '.br', brotliCompressSync(b, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }));
  writeFileSync(f + '.gz', gzipSync(b, { level: 9 }));
}
