/** Turns a document of one version into one of the next; the version number is set by `migrated`. */
export type Migration = (document: Record<string, unknown>) => Record<string, unknown>;
