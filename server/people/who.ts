/** On whose behalf something is done. */
export interface ByWhom {
  /** The person who asked for it, by id; null: nobody, such as the server itself. */
  readonly who: number | null;
  /** Names what was asked for: asked again by that name, nothing is made twice. */
  readonly key?: string;
}
