import { ensurePackages } from './setup/packages.mjs';
import { runMain, say } from './setup/run.mjs';

/**
 * Figures of the code with what they may be at most: `npm run house` prints them and ends with 1 where one is above its
 * bound, `npm run house -- places` prints where they come from as well.
 */
runMain(async () => {
  await ensurePackages();
  const { figures } = await import('./house/figures.mjs');
  const rows = figures();
  const widths = [Math.max(...rows.map(({ name }) => name.length)), 4, 5, 5, 4];
  /** @param {readonly (string | number)[]} cells */
  const line = (cells) =>
    cells
      .map((cell, i) => (i ? String(cell).padStart(widths[i] ?? 0) : String(cell).padEnd(widths[0] ?? 0)))
      .join('  ');
  say(line(['figure', 'was', 'now', 'bound', 'aim']));
  for (const { name, was, places, bound, aim } of rows) say(line([name, was, places.length, bound, aim]));
  if (process.argv[2] === 'places')
    for (const { name, places } of rows) say(`\n${name}\n${places.map((place) => `  ${place}`).join('\n')}`);
  const above = rows.filter(({ places, bound }) => places.length > bound);
  for (const { name, places, bound } of above) say(`Too many: ${name}: ${places.length}, at most ${bound}`);
  return above.length === 0 ? 0 : 1;
});
