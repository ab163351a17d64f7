/// <reference types="vite/client" />

declare module 'virtual:analysis-worker' {
  /** Where the worker's program lies. */
  const address: string;
  export default address;
}
