/** Why something failed, as it is told. */
export function why(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
