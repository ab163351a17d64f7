/** What goes over the wire, shared by both sides. */
export * from './accounts.ts';
export * from './demonstrations.ts';
export * from './library.ts';
export * from './problems.ts';
export * from './routes.ts';
