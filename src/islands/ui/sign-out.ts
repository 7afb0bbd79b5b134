/** Signing out: the session ends on the server, and this page is left. */
import { NothingSchema } from '../../wire/common';
import { call } from './api';

/** Gives what went wrong; null where the page is being left. */
export async function signOut(): Promise<string | null> {
  const reply = await call(NothingSchema, 'POST', '/api/sign-out');
  if (!reply.ok && reply.status !== 401) return reply.problem;
  location.assign('/sign-in');
  return null;
}
