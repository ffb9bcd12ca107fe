// What the benches ask a running server.
import { createReadStream } from 'node:fs';

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** @param url of a server; `ask` throws for an answer that is an error */
export function clientOf(url) {
  async function ask(method, path, body) {
    const response = await fetch(url + path, {
      method,
      ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    const answer = await response.json();
    if (!response.ok) throw new Error(`${method} ${path}: ${JSON.stringify(answer)}`);
    return answer;
  }

  async function upload(file) {
    const response = await fetch(`${url}/api/uploads?name=list.csv`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: createReadStream(file),
      duplex: 'half',
    });
    return (await response.json()).id;
  }

  const inspect = (uploadId, jobId) => ask('POST', `/api/uploads/${uploadId}/inspect?name=list.csv`, { jobId });

  /** Queues the bringing in of what was looked at. */
  const bringIn = (jobId, uploadId, { rows, format, columns }) =>
    ask('POST', `/api/jobs/${jobId}/sources?rows=${rows}`, {
      uploadId,
      name: 'list.csv',
      format,
      columns: columns.map(({ name, target }) => ({ name, target })),
    });

  /** Until nothing runs. */
  async function idle() {
    for (;;) {
      const runs = await ask('GET', '/api/runs');
      const failed = runs.find(({ state }) => state === 'failed');
      if (failed) throw new Error(JSON.stringify(failed));
      if (runs.every(({ state }) => state !== 'queued' && state !== 'running')) return;
      await pause(20);
    }
  }

  return { ask, upload, inspect, bringIn, idle };
}
