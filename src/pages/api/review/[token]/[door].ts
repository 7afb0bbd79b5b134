/** What the holder of a reviewer's link may do: read and give verdicts and comments; nothing that changes the study. */
import type { APIContext, APIRoute } from 'astro';
import { refuse } from '../../../../server/respond';
import { studyOfLink } from '../../../../store/links';
import { store } from '../../../../store/open';
import * as comments from '../../studies/[id]/comments';
import * as draw from '../../studies/[id]/draw';
import * as followUp from '../../studies/[id]/follow-up';
import * as verdicts from '../../studies/[id]/verdicts';

const DOORS: Readonly<Record<string, Readonly<Record<string, APIRoute>>>> = {
  verdicts: { GET: verdicts.GET, POST: verdicts.POST, DELETE: verdicts.DELETE },
  comments: { GET: comments.GET, POST: comments.POST },
  draw: { GET: draw.GET },
  'follow-up': { GET: followUp.GET },
};

export const ALL: APIRoute = (context) => {
  const { params, request } = context;
  const id = studyOfLink(store(), params.token ?? '');
  if (id === null) return refuse(404, 'This link opens nothing: it may have been withdrawn.');
  const door = DOORS[params.door ?? '']?.[request.method];
  if (door === undefined)
    return refuse(403, 'A reviewer reads, walks, comments and judges; this would change the study.');
  return door({ request, params: { id } } as unknown as APIContext);
};
