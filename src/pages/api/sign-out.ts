/** Ends the session of whoever asks. */
import type { APIRoute } from 'astro';
import { entrance } from '../../server/entrance';
import { json } from '../../server/respond';

export const POST: APIRoute = async ({ request }) =>
  json({}, 200, { 'Set-Cookie': await entrance().signOut(request.headers) });
