// Put before the server: tells over the channel to its parent how long its main thread was not heard of, at most, since asked last.
import { monitorEventLoopDelay } from 'node:perf_hooks';

const RESOLUTION_MS = 2;
const delays = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
delays.enable();
process.on('message', () => {
  process.send({ longestMs: Math.max(0, delays.max / 1e6 - RESOLUTION_MS) });
  delays.reset();
});
