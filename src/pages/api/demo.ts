/** Adds the demo studies that are not there. */
import type { APIRoute } from 'astro';
import { json } from '../../server/respond';
import { seedDemo } from '../../store/demo';
import { store } from '../../store/open';

export const POST: APIRoute = () => {
  seedDemo(store(), Date.now());
  return json({});
};
