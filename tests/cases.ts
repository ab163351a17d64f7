/**
 * On how many random cases something heavy is tried: a fixed sample whenever the tests run, all of them with
 * `npm run fuzz` and `npm run faults`.
 */
export const cases = (sample: number, all: number): number => (process.env.ALL_CASES === '1' ? all : sample);
