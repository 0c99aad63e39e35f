import fc from 'fast-check';
import { fault, requests } from '../tests/fuzz-requests.ts';

// Requests that know the schemas against a running demo: npm run bench:fuzz -- [URL] [HOW MANY] [SEED]
const [url = 'http://127.0.0.1:4870', many = '20000', seed = '1'] = process.argv.slice(2);
const patienceMilliseconds = 20_000;
const found: string[] = [];
const statuses = new Map<number, number>();
const begun = performance.now();

for (const request of fc.sample(requests, { numRuns: Number(many), seed: Number(seed) })) {
  const response = await fetch(`${url}/api${request.path}`, {
    method: request.method,
    headers: request.headers,
    signal: AbortSignal.timeout(patienceMilliseconds),
    ...(request.body === undefined ? {} : { body: request.body as BodyInit }),
  });
  statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
  const wrong = fault(request, response.status, response.headers.get('content-type') ?? '', await response.text());
  if (wrong !== null) found.push(wrong);
}
const seconds = (performance.now() - begun) / 1000;
const counts = [...statuses].sort(([a], [b]) => a - b).map(([status, count]) => `${status}: ${count}`);
console.log(`${many} requests in ${seconds.toFixed(0)} s; ${counts.join(', ')}`);
for (const wrong of found.slice(0, 20)) console.log(wrong);
console.log(`${found.length} failures of the server`);
process.exitCode = found.length === 0 ? 0 : 1;
