/** Coded rows that are kept, as they were packed. */
import type { APIRoute } from 'astro';
import { refuse } from '../../../../../server/respond';
import { findDataset } from '../../../../../store/datasets';
import { store } from '../../../../../store/open';

export const GET: APIRoute = ({ params }) => {
  const body = findDataset(store(), params.id ?? '', params.dataset ?? '');
  if (body === null) return refuse(404, 'These rows are not there any more.');
  return new Response(new Uint8Array(body), {
    headers: { 'Content-Type': 'application/gzip', 'Cache-Control': 'no-store' },
  });
};
