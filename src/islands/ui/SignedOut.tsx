/** Told while the server lets nobody in from here: a session is over, or was ended in another tab. */
import { useSignedOut } from './signed-out';
import classes from './signed-out.module.css';

export function SignedOut() {
  if (!useSignedOut()) return null;
  const here = location.pathname + location.search;
  return (
    <p className={classes.out} role="alert">
      You are signed out. What is not saved yet is kept in this browser.{' '}
      <a href={`/sign-in?to=${encodeURIComponent(here)}`}>Sign in again</a>
    </p>
  );
}
