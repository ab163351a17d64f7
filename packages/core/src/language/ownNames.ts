/**
 * A table that is looked up by what somebody typed: it has the names that are written in it and no others, since it
 * inherits none. `constructor` is a name like any other.
 */
export const ownNames = <T>(rows: Readonly<Record<string, T>>): Readonly<Record<string, T>> =>
  Object.assign(Object.create(null) as Record<string, T>, rows);
