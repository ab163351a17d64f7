import { request, type Agent, type IncomingMessage } from 'node:http';
import fc from 'fast-check';
import { currentVersion, makeEntry } from '@yperkine/demonstration';

/** Requests as nobody's page sends them, and some that are nearly right. */

export interface RandomRequest {
  readonly method: string;
  readonly path: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: Buffer | null;
}

export interface Known {
  /** Of the person whose cookie it is, of somebody else, and of nobody. */
  readonly ids: readonly string[];
  readonly cookie: string;
}

const hostileNames = [
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  '',
  'e',
  'tier-f',
  '\0',
  '\ud800',
];
const text = fc.oneof(
  fc.constantFrom(
    ...hostileNames,
    '1e999',
    'NaN',
    "'; DROP TABLE accounts; --",
    '{{7*7}}',
    'x'.repeat(20_000),
  ),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.string({ unit: 'grapheme', maxLength: 40 }),
);
const number = fc.oneof(
  fc.constantFrom(0, -1, 1, 2, 2 ** 31, 2 ** 53, 1e308, -0, 0.5, currentVersion),
  fc.double(),
  fc.integer(),
);
const anything = fc.anything({
  key: fc.oneof(
    fc.constantFrom(...hostileNames, 'kind', 'id', 'edits', 'new', 'at'),
    fc.string({ maxLength: 8 }),
  ),
  values: [text, number, fc.boolean(), fc.constant(null)],
  maxDepth: 4,
});
const fields = [
  'kind',
  'order',
  'names',
  'title',
  'name',
  'value',
  'text',
  'tier',
  'shownWhen',
  ...hostileNames,
];
const right = fc.constantFrom(
  ...[makeEntry('heading', { order: 1, title: 'Part (a)' }), makeEntry('note', { order: 2, text: 'Here.' })],
  makeEntry('parameter', {
    order: 3,
    name: 'a',
    value: '1',
    from: '0',
    to: '2',
    step: '0.1',
    repeat: 'once',
  }),
);
const nearlyRight = fc
  .tuple(right, fc.constantFrom(...fields), anything)
  .map(([whole, name, value]) => ({ ...whole, [name]: value }));
const entry = fc.oneof(
  { weight: 3, arbitrary: right },
  { weight: 3, arbitrary: nearlyRight },
  { weight: 1, arbitrary: fc.oneof(anything, fc.constant(null)) },
);
const id = fc.oneof(fc.constantFrom('e', 'f', 'tier-f', ...hostileNames), text);
const field = fc.constantFrom('title', 'decimals', 'x', 'looks', 'order', 'value', 'names', ...hostileNames);
const mostly = <T>(usual: fc.Arbitrary<T>, other: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.oneof({ weight: 4, arbitrary: usual }, { weight: 1, arbitrary: other });
const rightEdit = fc.record({
  at: fc.constant('entries'),
  id: fc.constantFrom('e', 'f'),
  old: fc.constant(null),
  new: right,
});
const otherEdit = fc.oneof(
  anything,
  fc.record({ at: fc.constant('document'), field, old: anything, new: fc.oneof(text, anything) }),
  fc.record({ at: fc.constantFrom('entries', 'tiers', 'steps'), id, old: entry, new: entry }),
  fc.record({
    at: fc.constant('field'),
    of: fc.constantFrom('entries', 'tiers', 'steps', '__proto__'),
    id,
    field,
    old: anything,
    new: anything,
  }),
);
const change = mostly(
  fc.record({ id: mostly(fc.uuid(), text), edits: fc.array(mostly(rightEdit, otherEdit), { maxLength: 3 }) }),
  anything,
);
const save = fc.record(
  {
    base: mostly(fc.constant(0), number),
    format: mostly(fc.constant(currentVersion), number),
    changes: fc.array(change, { maxLength: 2 }),
  },
  { requiredKeys: ['changes'] },
);
const account = fc.record(
  { name: text, email: fc.oneof(text, fc.constant('somebody@tarn-valley.example')), password: text },
  { requiredKeys: [] },
);
const making = fc.record({ title: text, copyOf: text }, { requiredKeys: [] });

/** JSON that keeps `__proto__` as a key, and numbers that JSON cannot write. */
const written = (value: unknown): string => JSON.stringify(value) ?? 'undefined';
const body = fc.oneof(
  { weight: 4, arbitrary: save.map(written) },
  { weight: 2, arbitrary: fc.oneof(account, making).map(written) },
  { weight: 2, arbitrary: anything.map(written) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '',
      '{',
      'null',
      '[[[[',
      '['.repeat(3000),
      '{"a":1e999}',
      '"\\ud800"',
      '\u0000',
    ),
  },
  { weight: 1, arbitrary: fc.string({ unit: 'binary', maxLength: 200 }) },
);
const bytes = fc.oneof(
  { weight: 9, arbitrary: body.map((one) => Buffer.from(one)) },
  { weight: 1, arbitrary: fc.uint8Array({ maxLength: 300 }).map((one) => Buffer.from(one)) },
);

function place({ ids }: Known): fc.Arbitrary<string> {
  const segment = fc.oneof(
    { weight: 3, arbitrary: fc.constantFrom(...ids) },
    {
      weight: 1,
      arbitrary: fc.oneof(
        fc.constantFrom('%00', '%zz', '..%2f..', '%ed%a0%80', '__proto__', '%5B', 'x'.repeat(3000)),
        text.map((one) => encodeURIComponent(one.toWellFormed())),
      ),
    },
  );
  const after = fc.constantFrom('', '/changes', '/changes', '/news', '/picture.svg', '/__proto__', '/');
  const fixed = fc.constantFrom(
    ...['/api/health', '/api/openapi.json', '/api/session', '/api/session/demo', '/api/accounts'],
    ...[
      '/api/demonstrations',
      '/api/',
      '/api',
      '/',
      '/favicon.ico',
      '/assets/none.js',
      '/%zz',
      '/..%2f',
      '//api',
    ],
  );
  const path = fc.oneof(
    {
      weight: 4,
      arbitrary: fc.tuple(segment, after).map(([of, what]) => `/api/demonstrations/${of}${what}`),
    },
    { weight: 2, arbitrary: fixed },
  );
  const value = fc.oneof(
    fc.constantFrom('0', '-1', '1e99', 'NaN', 'night', '', '%00', '%zz', '[]', 'x'.repeat(3000)),
    text.map((one) => encodeURIComponent(one.toWellFormed())),
  );
  const key = fc.constantFrom(
    'since',
    'after',
    'theme',
    'since[]',
    'since[a]',
    '__proto__',
    'after[__proto__]',
  );
  const query = fc.array(
    fc.tuple(key, value).map((pair) => pair.join('=')),
    { maxLength: 3 },
  );
  return fc
    .tuple(path, query)
    .map(([where, asked]) => (asked.length ? `${where}?${asked.join('&')}` : where));
}

const headers = fc.record(
  {
    'content-type': fc.constantFrom(
      ...['application/json', 'application/json', 'application/json', 'application/json; charset=utf-7'],
      ...['text/plain', 'multipart/form-data', 'application/x-www-form-urlencoded', '', 'a/b/c;;='],
    ),
    'content-encoding': fc.constantFrom('identity', 'gzip', 'br', 'deflate', 'none of them'),
    'accept-encoding': fc.constantFrom('br', 'gzip', '*', 'identity;q=0', ';;;'),
    'if-none-match': fc.constantFrom('*', '"', 'W/"x"'),
    range: fc.constantFrom('bytes=0-', 'bytes=9-1', 'lines=1'),
    origin: fc.constantFrom('null', 'http://elsewhere.example', 'not an origin'),
    'sec-fetch-site': fc.constantFrom('cross-site', 'same-origin', 'x'),
    'x-forwarded-proto': fc.constantFrom('https', 'x', 'http, https'),
    'x-forwarded-host': fc.constantFrom('a b', '[::1', 'tarn-valley.example'),
    accept: fc.constantFrom('text/event-stream', '*/*', ';'),
  },
  { requiredKeys: [] },
);
/** Every request comes from a network of its own, as behind a proxy: the limits on guesses are not what is tried. */
const from = fc.oneof(fc.ipV4(), fc.ipV6(), fc.constantFrom('', 'unknown', '::', '1.2.3.4, 5.6.7.8'));
const method = fc.constantFrom(
  ...['GET', 'GET', 'GET', 'POST', 'POST', 'POST', 'POST'],
  ...['DELETE', 'PUT', 'PATCH', 'HEAD', 'OPTIONS'],
);

export function randomRequests(known: Known, count: number, seed: number): RandomRequest[] {
  const cookie = fc.oneof(
    { weight: 6, arbitrary: fc.constant(known.cookie) },
    {
      weight: 1,
      arbitrary: fc.constantFrom('', 'a=b', `${known.cookie}x`, known.cookie.slice(0, 30), '%zz=%zz'),
    },
  );
  const json = fc.constant({ 'content-type': 'application/json' });
  const manner = fc.oneof(json, headers);
  const saving = fc.tuple(
    fc.constant('POST'),
    fc.constantFrom(...known.ids).map((of) => `/api/demonstrations/${of}/changes`),
    json,
    fc.constant(known.cookie),
    from,
    save.map((value) => Buffer.from(written(value))),
  );
  const one = fc
    .oneof(
      saving,
      fc.tuple(method, place(known), manner, cookie, from, fc.option(bytes, { nil: null, freq: 8 })),
    )
    // Signing in or out would end the session on which the others are sent.
    .filter(
      ([how, where, , whose]) => how === 'GET' || whose !== known.cookie || !/session|accounts/.test(where),
    )
    .map(([how, path, more, whose, network, content]) => ({
      method: how,
      path,
      headers: { ...more, cookie: whose, 'x-forwarded-for': network },
      body: how === 'GET' || how === 'HEAD' ? null : content,
    }));
  return fc.sample(one, { numRuns: count, seed });
}

export interface Answer {
  readonly status: number;
  readonly text: string;
}

/** Sends a request as it is. @returns its answer; of one that never ends, its beginning */
export function sendRandom(
  port: number,
  agent: Agent,
  { method: how, path, headers: said, body: content }: RandomRequest,
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const length = content ? { 'content-length': String(content.length) } : {};
    const sent = request(
      { host: '127.0.0.1', port, agent, method: how, path, headers: { ...said, ...length } },
      (response) => read(response).then(resolve, reject),
    );
    sent.on('error', reject);
    sent.end(content ?? undefined);
  });
}

async function read(response: IncomingMessage): Promise<Answer> {
  const status = response.statusCode ?? 0;
  if (response.headers['content-type']?.startsWith('text/event-stream')) {
    response.destroy();
    return { status, text: '' };
  }
  const pieces: Buffer[] = [];
  for await (const piece of response) pieces.push(piece as Buffer);
  const isPlain = response.headers['content-encoding'] === undefined;
  return { status, text: isPlain ? Buffer.concat(pieces).toString() : '' };
}
