/** Functions of rising cost with the loop that a programmer would write by hand for each. */
export interface Reference {
  readonly text: string;
  readonly loop: (xs: Float64Array, ys: Float64Array) => void;
}

const at = (xs: Float64Array, i: number): number => xs[i] as number;

export const references: readonly Reference[] = [
  {
    text: '3x^2 - 5x - 2',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) ys[i] = 3 * at(xs, i) * at(xs, i) - 5 * at(xs, i) - 2;
    },
  },
  {
    text: 'x^5 - 4x^3 + x',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) {
        const x = at(xs, i);
        ys[i] = x * x * x * x * x - 4 * x * x * x + x;
      }
    },
  },
  {
    text: '(x^2 + 1)/(x - 7)',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) ys[i] = (at(xs, i) * at(xs, i) + 1) / (at(xs, i) - 7);
    },
  },
  {
    text: '√(x^2 + 1)',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) ys[i] = Math.sqrt(at(xs, i) * at(xs, i) + 1);
    },
  },
  {
    text: 'sin x',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) ys[i] = Math.sin(at(xs, i));
    },
  },
  {
    text: 'e^(-x^2)',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) ys[i] = Math.exp(-at(xs, i) * at(xs, i));
    },
  },
  {
    text: '2 + 7/5 sin(0.7x) + 0.15x',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) ys[i] = 2 + 1.4 * Math.sin(0.7 * at(xs, i)) + 0.15 * at(xs, i);
    },
  },
  {
    text: 'e^(-0.2x) cos(2x) ln(x^2 + 1)',
    loop: (xs, ys) => {
      for (let i = 0; i < xs.length; i++) {
        const x = at(xs, i);
        ys[i] = Math.exp(-0.2 * x) * Math.cos(2 * x) * Math.log(x * x + 1);
      }
    },
  },
];
