import { fuzzClaims } from './claims.ts';
import { Random } from './inputs.ts';
import { fuzzAnalyses, fuzzCertificates, fuzzReader, type FuzzResult } from './runs.ts';

const [
  readerCount = 1_000_000,
  analysisCount = 100_000,
  seed = 20261124,
  certificateCount = 10_000,
  claimCount = 100_000,
] = process.argv.slice(2).map(Number);
const clock = () => performance.now();

function report(name: string, { inputs, answered, refused, faults, slowest }: FuzzResult): void {
  console.log(
    `${name}: ${inputs} inputs from seed ${seed}, ${answered} answered, ${refused} refused, ${faults.length} faults`,
  );
  console.log(`  slowest ${slowest.milliseconds.toFixed(1)} ms: ${slowest.input.slice(0, 120)}`);
  faults.slice(0, 20).forEach((fault) => console.log(`  ${fault.slice(0, 600)}`));
}

const reader = fuzzReader(seed, readerCount, clock);
report('reader', reader);
const analyses = fuzzAnalyses(seed, analysisCount, clock);
report('analyses', analyses);
const certificates = fuzzCertificates(seed, certificateCount);
console.log(
  `certificates: ${certificates.tried} tried, ${certificates.right} right, ${certificates.undecided} undecided, ` +
    `${certificates.unshown.length} not shown, ${certificates.wrong.length} wrong`,
);
certificates.unshown.slice(0, 20).forEach((text) => console.log(`  not shown: ${text}`));
certificates.wrong.forEach((text) => console.log(`  wrong: ${text}`));
const claims = fuzzClaims(new Random(seed), claimCount);
console.log(
  `claims: ${claims.tried} tried, ${claims.right} right, ${claims.undecided} undecided, ${claims.wrong.length} wrong`,
);
claims.wrong.forEach((text) => console.log(`  wrong: ${text}`));
const faults = reader.faults.length + analyses.faults.length;
process.exitCode = faults + certificates.wrong.length + claims.wrong.length > 0 ? 1 : 0;
