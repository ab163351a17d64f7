export { simplify } from '@yperkine/core';
