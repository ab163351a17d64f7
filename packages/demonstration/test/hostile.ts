import { emptyDocument, makeEntry, type Document, type Entry, type Id } from '../src/index.ts';

/** Documents that nobody would make by hand, each of which once kept the view from opening or the page from answering. */

const documentOf = (entries: Readonly<Record<Id, Entry>>): Document => ({
  ...emptyDocument('Hostile'),
  entries: {
    ...entries,
    sound: makeEntry('function', { order: 1000, text: 'sound(x) = x^2', tier: 'tier-f' }),
  },
});
const given = (order: number, text: string): Entry => makeEntry('function', { order, text, tier: 'tier-f' });
const many = (count: number, make: (i: number) => Entry): Record<Id, Entry> =>
  Object.fromEntries(Array.from({ length: count }, (_, i) => [`n${i}`, make(i)]));
const chain = (count: number, first: string, next: (before: string, i: number) => string): Document =>
  documentOf(many(count, (i) => given(i, `f_${i}(x) = ${i === 0 ? first : next(`f_${i - 1}`, i)}`)));
const nested = (times: number, before: string, inside: string, behind: string): string =>
  before.repeat(times) + inside + behind.repeat(times);

export const hostileDocuments: Readonly<Record<string, Document>> = {
  'a chain of 499 functions': chain(499, 'x', (before) => `${before}(x) + 1`),
  'functions that mention the one before twice': chain(60, 'x', (before) => `${before}(x) ${before}(x + 1)`),
  'functions of functions of functions': chain(60, 'x^2 + 1', (before) => `${before}(${before}(x))`),
  'thirty derivatives in a row': chain(30, 'sin(x) e^x', (before) => `${before}'(x)`),
  'a circle of 499 functions': documentOf(
    many(499, (i) => given(i, `f_${i}(x) = f_${(i + 1) % 499}(x) + 1`)),
  ),
  'a circle of 499 values': documentOf(
    many(499, (i) => makeEntry('value', { order: i, text: `a_${i} = a_${(i + 1) % 499} + 1` })),
  ),
  'thirty roots in one another': documentOf({ f: given(1, `f(x) = ${nested(30, '√(', 'x', ')')}`) }),
  'powers of powers': documentOf({ f: given(1, `f(x) = ${nested(50, 'x^(', 'x', ')')}`) }),
  'names that every object inherits': documentOf({
    f: given(1, 'f(x) = constructor(x) + toString'),
    g: makeEntry('value', { order: 2, text: 'hasOwnProperty = 3' }),
    n: makeEntry('note', {
      order: 3,
      text: '{constructor} {__proto__} {definition of valueOf} $\\constructor$',
    }),
    t: makeEntry('tangent', { order: 4, on: 'nothing', parameter: 'nobody' }),
    p: { ...given(5, 'p(x) = x'), shownWhen: 'constructor > 1 and __proto__' },
  }),
  'a note nested 700 deep': documentOf({
    n: makeEntry('note', {
      order: 1,
      text: `$${nested(700, '{', 'x', '}')}$ $${nested(700, '\\sqrt{', 'x', '}')}$ ${nested(700, '{', 'a', '}')} $${'\\left('.repeat(300)}$`,
    }),
  }),
  'a sum of a thousand terms and its slope': documentOf({
    f: given(1, 'f(x) = sum k from 1 to 1000 of sin(k x)/k'),
    g: given(2, "g(x) = f'(x)"),
  }),
  'an integral that swings without end': documentOf({
    f: given(1, 'f(x) = ∫[0, x] sin(1/t) dt'),
    g: given(2, 'g(x) = f(f(x))'),
  }),
  'values of millions of terms': documentOf({
    s: makeEntry('value', { order: 1, text: 's = sum k from 1 to 1000000 of 1/k^2' }),
    d: makeEntry('value', {
      order: 2,
      text: 'd = sum k from 1 to 3000 of (sum j from 1 to 1000 of 1/(k j))',
    }),
    t: makeEntry('value', { order: 3, text: 't = s + d' }),
  }),
  'derivatives that are long to find': documentOf({
    f: given(1, 'f(x) = (x^2 + 1)^5/(x - 7)^3 sin(x)^4 e^(cos x) sqrt(x^2 + 1)'),
    g: makeEntry('derivative', { order: 2, of: 'f', degree: 3, tier: 'tier-f' }),
    p: given(3, 'p(x) = (x-1)(x-2)(x-3)(x-4)(x-5)(x-6)(x-7)(x-8)(x-9)(x-10) sin(x)'),
    q: makeEntry('derivative', { order: 4, of: 'p', tier: 'tier-f' }),
    a: makeEntry('parameter', { order: 5, name: 'a', value: '1' }),
    t: makeEntry('tangent', { order: 6, on: 'p', parameter: 'a' }),
  }),
  'a second derivative alone, with its first asked for': documentOf({
    h: makeEntry('givenDerivative', { order: 1, text: "h''(x) = sin(x^2)/(1 + x^2)", tier: 'tier-f' }),
    g: given(2, "g(x) = h'(x)"),
  }),
};
