import { describe, expect, test } from '@jest/globals';
import { emptyStage, makeEntry, openedNumber, resolve, type Resolution, type Said } from '../src/index.ts';
import { documentWith, linesOf, resultOf, sentenceOf, slider, withStudy } from './sample.ts';

const valueOf = (text: string) =>
  documentWith({ study: makeEntry('value', { order: 1, text }), a: slider(2, 'a', '3') });

describe('angles in degrees', () => {
  const inDegrees = (text: string) => ({ ...valueOf(text), angles: 'degrees' as const });

  test.each([
    ['sin 30', 'sin 30^{\\circ}', '= 0.500'],
    ['2 cos(a 15)', '\\cos', '= √2 ≈ 1.414'],
    ['arctan 1', '1^{\\circ}', '= 45.000'],
  ])('%s', (text, written, value) => {
    const [line = ''] = linesOf(inDegrees(text));
    expect(line).toContain(written);
    expect(line).toContain(value);
  });

  test('everything is read anew when the unit changes, and back', () => {
    const [radians, degrees] = [valueOf('sin 30'), inDegrees('sin 30')];
    const first = resolve(radians, emptyStage);
    const second = resolve(degrees, emptyStage, first);
    const third = resolve(radians, emptyStage, second);
    const told = (resolution: Resolution) => resolution.entries.get('study')?.outcome;
    expect(told(second)).toEqual(told(resolve(degrees, emptyStage)));
    expect(told(second)).not.toEqual(told(first));
    expect(told(third)).toEqual(told(first));
  });
});

describe('a value is as exact as what is proved of it', () => {
  test.each([
    ['lim[x → 0] (1 - cos(x^2))/x^4', '= 0.5'],
    ['lim[x → 0] (sin(x) - x)/x^3', '= -1/6 ≈ -0.167'],
    ['lim[x → ∞] (1 + a/x)^x', '= e³ ≈ 20.086'],
    ['2 lim[x → 0+] arctan(1/x)', '= π ≈ 3.142'],
    ['sum i from 1 to 4 of 1/i', '= 25/12 ≈ 2.083'],
    ['sum i from 1 to 10 of i^2', '= 385'],
    // What doubles miss by a hair, by hand.
    ['floor(2 sin(π/6) 10)', '= 10.000'],
    ['mod(0.3, 0.1)', '= 0.000'],
    ['mod(10^20, 3)', '= 1.000'],
    ['mod(-7, 3)', '= 2.000'],
    ['floor(((2^0.5)^0.5)^4)', '= 2.000'],
    ['√(1 - √(2)^2/2)', '= 0.000'],
    ['√(2)^2 - 2', '= 0.000'],
    ['(1 - cos(10^(-8)))/(10^(-8))^2', '≈ 0.500'],
    ['5!', '= 120.000'],
    ['log_4(8)', '= 1.500'],
    ['floor(π)', '= 3.000'],
    ['round(2.5)', '= 3.000'],
    ['max(1, 2) + abs(-3)', '= 5.000'],
    ['1 - tanh(49)', '≈ 7.523·10⁻³⁷'],
    ['1.0005', '≈ 1.001'],
    ['2 sin(a π/6)', '= 2.000'],
    // By hand, but for the last two: Abramowitz and Stegun, 7.1.1; from memory.
    ['∫[0, 2] x^2 dx', '= 8/3 ≈ 2.667'],
    ['∫[0, 1/3] x dx', '= 1/18 ≈ 0.056'],
    ['∫[1/7, 2/7] x dx', '= 3/98 ≈ 0.031'],
    ['3 ∫[0, 2] x^2 dx + 1', '= 9'],
    ['∫[0, pi] sin(t) dt + sum i from 1 to 4 of 1/i', '= 49/12 ≈ 4.083'],
    ['∫[1, ∞] 1/x^2 dx', '= 1'],
    ['∫[0, a] (∫[0, 1] x^2 dx + t) dt', '= 5.5'],
    ['∫[2, 0] x^2 dx', '= -8/3 ≈ -2.667'],
    ['∫[0, 10] e^(-((x - 3.3)/0.001)^2) dx', '≈ 0.002'],
    ['1000 ∫[0, 10] e^(-((x - 3.3)/0.001)^2) dx', '≈ 1.772'],
    ['∫[0, ∞] sin(x)/x dx', '≈ 1.571'],
  ])('%s %s', (text, tail) => {
    const [line = ''] = linesOf(valueOf(text));
    expect(line.replaceAll('−', '-')).toContain(tail);
  });

  test.each([
    ['lim[x → 0] 1/x', 'The limit does not exist: from the left it is −∞, from the right ∞.'],
    ['lim[x → 0] abs(x)/x', 'The limit does not exist: from the left it is -1, from the right 1.'],
    ['lim[x → 0] 1/x^2', 'There is no limit: it grows beyond all bounds, to ∞.'],
    ['lim[x → ∞] sin(x)', 'The limit does not exist: it swings.'],
    ['lim[x → 0-] sqrt(x)', 'There is no limit: nothing is defined beside this place.'],
    ['lim[x → ∞] sin(x) sin(π x)', 'Whether this limit exists is not decided.'],
    ['tan(π/2)', 'This has no value.'],
    ['ln(sin(π))', 'This has no value.'],
    ['1/(√(2)^2 - 2)', 'This has no value.'],
    ['(1/2)!', 'This has no value.'],
    ['10^400', 'This is larger than any number that can be shown here.'],
    ['171!', 'This is larger than any number that can be shown here.'],
    ['∫[0, 1] 1/x dx', 'This integral diverges: it has no finite value.'],
    ['∫[0, ∞] x sin(x) dx', 'This integral diverges: it has no finite value.'],
    ['∫[0, 2] sqrt(x - 1) dx', 'The integrand has no value from 0.000 to 1.000.'],
  ])('%s: %s', (text, sentence) => {
    expect(sentenceOf(valueOf(text)).replaceAll('−1', '-1')).toBe(sentence);
    expect(linesOf(valueOf(text))[0]).not.toMatch(/[=≈]/);
  });
});

describe('0⁰ is marked where a value stands on it', () => {
  const convention = 'The power 0⁰ in it counts as 1.';

  test.each([
    ['0^0', '= 1'],
    ['3 + (a - 3)^(6 - 2a)', '= 4'],
    ['(2 - √4)^0 + 0', '= 1'],
    ['0^0 if a = 3; 5 otherwise', '= 1'],
  ])('%s %s', (text, tail) => {
    expect(linesOf(valueOf(text))[0]).toContain(tail);
    expect(sentenceOf(valueOf(text))).toBe(convention);
  });

  test.each(['0^2', '2^0', '5 if a = 3; 0^0 otherwise', '(10^(-300))^0', 'sum i from 0 to 2 of 3^i'])(
    'not %s',
    (text) => {
      expect(sentenceOf(valueOf(text))).not.toContain('0⁰');
    },
  );

  test('at a point of a curve, too', () => {
    const pointAt = (text: string) =>
      sentenceOf(
        withStudy(text, makeEntry('point', { order: 5, on: 'f', parameter: 'b' }), {
          b: slider(9, 'b', '0'),
        }),
      );
    expect(pointAt('f(x) = x^x')).toContain(convention);
    expect(pointAt('f(x) = x^2')).not.toContain('0⁰');
  });
});

test('a value that is one integral tells on request between which bounds it is proved to lie', () => {
  const boundsOf = (text: string) => {
    const { lines } = resultOf<Said>(valueOf(text), 'study');
    const full = lines[0]?.flatMap((part) => (part.kind === 'number' && part.of ? [part.of] : []))[0];
    return full && openedNumber(full, { decimals: 3, decimalMark: '.' }).between;
  };
  expect(boundsOf('∫[0,1] e^(x^2) dx')).toBe('1.462651745907179 and 1.462651745907185');
  // The slider a stands at 3: 1444.5451 (e⁹ times Dawson's integral at 3, Abramowitz & Stegun, table 7.5; from memory).
  expect(boundsOf('∫[0,a] e^(x^2) dx')).toMatch(/^1444\.5451\d+ and 1444\.5451\d+$/);
  // It takes so long that its digits are asked for: π/2 − Si(1) (Abramowitz & Stegun, table 5.1: Si(1) = 0.9460830704).
  expect(boundsOf('∫[0,∞] sin(e^x) dx')).toMatch(/^0\.62471325\d* and 0\.62471325\d*$/);
  expect([boundsOf('∫[0,2] x^2 dx'), boundsOf('2 ∫[0,1] e^(x^2) dx'), boundsOf('e^2')]).toEqual([
    null,
    null,
    null,
  ]);
});
