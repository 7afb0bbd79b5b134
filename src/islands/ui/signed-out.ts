/** Whether the server has answered last that nobody is signed in here. */
import { createStore, useStore } from 'zustand';

const store = createStore<{ readonly isSignedOut: boolean }>(() => ({ isSignedOut: false }));

/** To be called with every answer that came. */
export function tellSignedOut(isSignedOut: boolean): void {
  if (store.getState().isSignedOut !== isSignedOut) store.setState({ isSignedOut });
}

export const useSignedOut = (): boolean => useStore(store, (state) => state.isSignedOut);

export const isSignedOut = (): boolean => store.getState().isSignedOut;
