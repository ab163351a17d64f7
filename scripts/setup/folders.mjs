import { createHash } from 'node:crypto';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's folder, and the folder for what it makes on this machine. */
export const projectFolder = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
export const dataFolder = resolve(process.env.DATA_FOLDER ?? join(projectFolder, '.data'));

/** A short name that tells two such folders on one machine apart. */
export const checkoutName = `yperkine-${createHash('sha256').update(dataFolder).digest('hex').slice(0, 10)}`;
