/** Somebody who may do what authors do, as a page is told of them. */
export interface Asker {
  /** Under this name they comment and judge; null where they give a name themselves. */
  readonly name: string | null;
  /** Whether they can sign out here. */
  readonly canSignOut: boolean;
}
