/** What the Release view shows, taken from the address and written there; a step back in the browser shows what was before. */
import { useEffect, useState } from 'react';
import { readReleaseShown, releaseSearch, type ReleaseShown } from './shown';

export function useReleaseShown(): readonly [ReleaseShown, (shown: ReleaseShown) => void] {
  const [shown, setShown] = useState(() => readReleaseShown(location.search));
  useEffect(() => {
    const onPop = () => setShown(readReleaseShown(location.search));
    addEventListener('popstate', onPop);
    return () => removeEventListener('popstate', onPop);
  }, []);
  const show = (next: ReleaseShown) => {
    history.pushState(null, '', releaseSearch(next));
    setShown(next);
  };
  return [shown, show];
}
