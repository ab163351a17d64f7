/**
 * What the build view stands on. It is asked for together with the view, so that it is on its way as early; being asked
 * for by itself, it starts in a task of its own, and the page gets its turn in between.
 */
export { currentVersion } from '@yperkine/demonstration';
