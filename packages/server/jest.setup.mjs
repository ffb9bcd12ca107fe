import { bundle } from '../../scripts/bundle.mjs';

/** Worker threads cannot run TypeScript: the tests run the bundle of the same source. */
export default () => bundle('packages/server/src', ['threads/worker.ts', 'threads/look.ts'], 'dist/test-server');
