import { compile, derivativesAt, readExpression, type KeyPoints } from '../src/index.ts';
import { keyPoints } from './checked.ts';

const samples = 1500;

/** Rounding scatters signs; a true sign is seen in neighbouring samples. */
const shortestRun = 4;

function hasRun(values: readonly number[], holds: (value: number) => boolean): boolean {
  let length = 0;
  return values.some((value) => {
    length = holds(value) ? length + 1 : 0;
    return length >= shortestRun;
  });
}

/** Something that a list of key points called complete does not account for; null where all is in order. */
export function missedBy(text: string, interval: readonly [number, number]): string | null {
  const reading = readExpression(text, { names: new Set(['x']), functions: new Set() });
  if (!reading.ok) throw new Error(`${text} cannot be read`);
  const found = keyPoints(reading.value, 'x', interval);
  return found.complete ? contradiction(reading.value, interval, found) : null;
}

/**
 * Compares a complete list with samples between each two neighbouring key points: f, f′ and f″ keep their signs
 * there. Samples nearer to a key point than a millionth are left out: rounding decides there.
 */
function contradiction(
  body: Parameters<typeof compile>[0],
  [a, b]: readonly [number, number],
  { points }: KeyPoints,
): string | null {
  const program = compile(body, 'x');
  const ends = [...new Set([a, ...points.map(({ x }) => x), b])].sort((p, q) => p - q);
  for (let i = 1; i < ends.length; i++) {
    const [from, to] = [ends[i - 1] as number, ends[i] as number];
    if (to - from < 1e-5) continue;
    const looks = Array.from(
      { length: Math.ceil(samples / ends.length) + 20 },
      (_, k, count = Math.ceil(samples / ends.length) + 20) =>
        derivativesAt(program, from + 1e-6 + ((to - from - 2e-6) * (k + 0.5)) / count, 2),
    );
    for (const order of [0, 1, 2]) {
      const values = looks.map((look) => look[order] as number);
      const size = Math.max(...values.map(Math.abs).filter(Number.isFinite));
      const negligible =
        Math.max(size, Math.max(...looks.map(([y = 0]) => Math.abs(y)).filter(Number.isFinite))) * 1e-11;
      if (hasRun(values, (value) => value > negligible) && hasRun(values, (value) => value < -negligible))
        return `order ${order} changes its sign between ${from} and ${to}`;
    }
  }
  return null;
}
