/** A cluster that is up. */
export interface Postgres {
  readonly url: string;
  /** An empty database of the given name. @returns its address */
  readonly fresh: (database: string) => string;
  /** Every connection breaks, and for a moment there is nobody to connect to. */
  readonly restart: () => void;
  readonly stop: () => void;
}
export function startPostgres(name: string, options?: { readonly fast?: boolean }): Promise<Postgres>;
