/** A step in the shape of the database; never changed once released. */
export interface Migration {
  name: string;
  statements: readonly string[];
}
