/** A link or a token that is told once. */
export interface ToldOnce {
  readonly what: string;
  readonly secret: string;
}
