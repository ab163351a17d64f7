import { randomUUID } from 'node:crypto';
import autocannon from 'autocannon';
import { bestOf, table } from './measure.ts';

/**
 * Requests a second of the built server beside a bare one, in one run: best of five rounds each, taken in turn, over
 * loopback.
 */
const ours = String(process.env.BENCH_ADDRESS);
const bare = String(process.env.BENCH_BARE);
const rounds = 5;
const seconds = 4;
const connections = 8;

const json = { 'content-type': 'application/json' };

async function signIn(): Promise<string> {
  const account = {
    name: 'Bench',
    email: `${randomUUID()}@tarn-valley.example`,
    password: 'a long enough one',
  };
  const response = await fetch(`${ours}/api/accounts`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify(account),
  });
  return response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
}

interface Made {
  readonly id: string;
  readonly bytes: number;
}

/** A demonstration of usual size: the entries of one that ships. */
async function make(cookie: string): Promise<Made> {
  const headers = { ...json, cookie };
  const made = (await (
    await fetch(`${ours}/api/demonstrations`, { method: 'POST', headers, body: '{}' })
  ).json()) as { id: string };
  const { gaugeDemonstration } = await import('../apps/server/src/database/examples/gauge.ts');
  const { entries, tiers } = gaugeDemonstration();
  const edits = [
    ...Object.entries(entries).map(([id, entry]) => ({ at: 'entries', id, old: null, new: entry })),
    ...Object.entries(tiers).map(([id, tier]) => ({ at: 'tiers', id, old: null, new: tier })),
  ];
  const saved = await fetch(`${ours}/api/demonstrations/${made.id}/changes`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ base: 0, changes: [{ id: 'first', edits }] }),
  });
  if (!saved.ok) throw new Error(await saved.text());
  const text = await (await fetch(`${ours}/api/demonstrations/${made.id}`, { headers })).text();
  return { id: made.id, bytes: text.length };
}

async function versionOf(cookie: string, id: string): Promise<number> {
  const response = await fetch(`${ours}/api/demonstrations/${id}`, { headers: { cookie } });
  return ((await response.json()) as { version: number }).version;
}

async function requestsASecond(options: autocannon.Options): Promise<number> {
  const result = await autocannon({ connections, duration: seconds, ...options });
  if (result.non2xx > 0 || result.errors > 0)
    throw new Error(`${result.non2xx} refusals and ${result.errors} errors at ${options.url}`);
  return result.requests.average;
}

/** Each of several measurements five times, in turn; the best of each. */
async function bestInTurn(
  measurements: Readonly<Record<string, () => Promise<number>>>,
): Promise<Record<string, number>> {
  const best: Record<string, number> = {};
  for (let round = 0; round < rounds; round++)
    for (const [name, measure] of Object.entries(measurements))
      best[name] = Math.max(best[name] ?? 0, await measure());
  return best;
}

/** Every connection saves to a demonstration of its own, one change after another. */
function saving(cookie: string, ids: readonly string[], versions: Map<string, number>): autocannon.Options {
  let next = 0;
  return {
    url: ours,
    setupClient: (client) => {
      const id = ids[next++ % ids.length] ?? '';
      client.setRequests([
        {
          method: 'POST',
          path: `/api/demonstrations/${id}/changes`,
          headers: { ...json, cookie },
          setupRequest: (request) => {
            const base = versions.get(id) ?? 1;
            const edits = [{ at: 'document', field: 'title', old: '', new: `Title ${base}` }];
            return { ...request, body: JSON.stringify({ base, changes: [{ id: randomUUID(), edits }] }) };
          },
          onResponse: (status, body) => {
            if (status === 200) versions.set(id, (JSON.parse(body) as { version: number }).version);
          },
        },
      ]);
    },
  };
}

/** Every connection writes a row of its own. */
function writing(body: string): autocannon.Options {
  let next = 0;
  return {
    url: bare,
    setupClient: (client) => {
      const path = `/row/${(next++ % connections) + 1}`;
      client.setRequests([{ method: 'POST', path, headers: json, body }]);
    },
  };
}

const cookie = await signIn();
const made = await Promise.all(Array.from({ length: connections }, () => make(cookie)));
const ids = made.map(({ id }) => id);
const [first] = made;
const versions = new Map(ids.map((id) => [id, 1]));
const change = JSON.stringify({
  base: 1,
  changes: [{ id: randomUUID(), edits: [{ at: 'document', field: 'title', old: '', new: 'Title 1' }] }],
});

const best = await bestInTurn({
  bareRead: () => requestsASecond({ url: `${bare}/document/${ids[0]}` }),
  read: () => requestsASecond({ url: `${ours}/api/demonstrations/${ids[0]}`, headers: { cookie } }),
  bareWrite: () => requestsASecond(writing(change)),
  save: async () => {
    // What was on its way when the last round ended was saved, too.
    await Promise.all(ids.map(async (id) => versions.set(id, await versionOf(cookie, id))));
    return requestsASecond(saving(cookie, ids, versions));
  },
  library: () => requestsASecond({ url: `${ours}/api/demonstrations`, headers: { cookie } }),
});

const calibration = bestOf(5, 1, () => {
  let sum = 0;
  for (let i = 1; i < 3e7; i++) sum += 1 / i;
  if (sum < 0) throw new Error('unreachable');
});
const rate = (name: string): string => `${Math.round(best[name] ?? 0)}`;
const share = (a: string, b: string): string => ((best[a] ?? 0) / (best[b] ?? 1)).toFixed(2);
process.stdout.write(
  `Server, ${connections} connections, best of ${rounds} rounds of ${seconds} s, document of ${Math.round((first?.bytes ?? 0) / 1000)} kB; calibration loop ${calibration.toFixed(1)} ms\n`,
);
table(
  ['route', 'requests a second', 'share of the bare route', 'aim'],
  [
    ['bare: read a document', rate('bareRead'), '', ''],
    ['a demonstration', rate('read'), share('read', 'bareRead'), '0.50'],
    ['bare: write one row', rate('bareWrite'), '', ''],
    ['a save', rate('save'), share('save', 'bareWrite'), '0.25'],
    ['a page of the library', rate('library'), '', ''],
  ],
);
