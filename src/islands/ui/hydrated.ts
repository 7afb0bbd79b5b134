/** Whether the page answers yet: what the server drew cannot be pressed before its code has come. */
import { useSyncExternalStore } from 'react';

const never = () => () => {};

export function useHydrated(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
