/** In the place of the framework's door that scales pictures for whoever asks: the app has none to scale. */
import type { APIRoute } from 'astro';
import { refuse } from './respond';

export const GET: APIRoute = () => refuse(404, 'There is nothing here.');
