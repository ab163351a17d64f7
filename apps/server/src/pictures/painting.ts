/** What goes to a painting thread and comes back, as plain data. */
export interface Order {
  readonly number: number;
  /** A stored document of any version, as JSON. */
  readonly text: string;
}

export interface Painted {
  readonly number: number;
  /** Null for a document that cannot be read. */
  readonly pictures: { readonly day: string; readonly night: string } | null;
}
