import type pg from 'pg';

const names = new Map<string, string>();

/** A name for each text, the same wherever it is asked. The texts are those of the program: a handful. */
function nameOf(text: string): string {
  const name = names.get(text) ?? `statement_${names.size + 1}`;
  names.set(text, name);
  return name;
}

/**
 * Asks what is asked at every request: each connection reads and plans the statement once.
 * @param text SQL with $1, $2 … for the values; never made of what somebody typed
 */
export const askPrepared = <Row extends pg.QueryResultRow>(
  pool: pg.Pool,
  text: string,
  values: readonly unknown[],
): Promise<pg.QueryResult<Row>> => pool.query<Row>({ name: nameOf(text), text, values: [...values] });

/** A pool for a package that asks by text and values: all its statements are prepared. */
export const preparing = (pool: pg.Pool): pg.Pool =>
  new Proxy(pool, {
    get(target, property) {
      if (property === 'query')
        return (text: string, values: readonly unknown[] = []) => askPrepared(target, text, values);
      const value: unknown = Reflect.get(target, property, target);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
