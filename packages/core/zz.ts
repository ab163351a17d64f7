import { fuzzClaims } from './fuzz/claims.ts';
import { Random } from './fuzz/inputs.ts';
const [seed = 1, count = 200] = process.argv.slice(2).map(Number);
const t = performance.now();
const r = fuzzClaims(new Random(seed), count);
console.log(r.tried, r.right, r.undecided, r.wrong.length, ((performance.now() - t) / count).toFixed(1) + ' ms each');
r.wrong.forEach((w) => console.log('  ', w));
