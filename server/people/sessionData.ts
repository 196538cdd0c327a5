/** What is kept of a log-in. */
export interface SessionData {
  readonly person?: number;
  /** The cutter that this is the tablet of. */
  readonly tablet?: string;
  /** Who said by PIN that they are at it, and until when that counts, ms since 1970. */
  readonly here?: { readonly person: number; readonly until: number };
  /** When it was last written, ms since 1970. */
  readonly seen?: number;
}
