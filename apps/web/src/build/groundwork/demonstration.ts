export { currentVersion } from '@yperkine/demonstration';
