/**
 * What the holder of a reviewer's link may do: read, and give and take back verdicts and comments of their own, in the
 * name of the link. The one table of doors; whatever is not in it is shut.
 */
import { fingerprint } from '../core/routing/route-content';
import { addComment, commentsUnder, listComments, removeOwnComment } from '../store/comments';
import { findDraw } from '../store/draws';
import type { OpenLink } from '../store/links';
import type { Store } from '../store/open';
import { findStudy } from '../store/studies';
import { givenBy, listVerdicts, putVerdict, removeVerdict, verdictsUnder } from '../store/verdicts';
import { CommentToAdd, CommentToRemove } from '../wire/comments';
import { VerdictToGive, VerdictToTakeBack } from '../wire/verdicts';
import { followUpOf } from './follow-up';
import { json, readBody, refuse } from './respond';

interface Call {
  readonly db: Store;
  readonly link: OpenLink;
  readonly request: Request;
  readonly now: number;
}
type ReviewDoor = (call: Call) => Response | Promise<Response>;

/** Under one link. */
export const MOST_COMMENTS = 500;
export const MOST_VERDICTS = 5_000;
/** In bytes. */
const MOST_SENT = 200_000;
/** Writes in a minute. */
export const MOST_A_MINUTE = 60;

export const REVIEW_DOORS: Readonly<Record<string, Readonly<Record<string, ReviewDoor>>>> = {
  verdicts: {
    GET: ({ db, link }) => json(listVerdicts(db, link.studyId)),
    POST: async ({ db, link, request, now }) => {
      const read = await readBody(request, VerdictToGive, MOST_SENT);
      if (!read.ok) return read.response;
      const { marks, route } = read.body;
      if (fingerprint(marks) !== route)
        return refuse(400, 'The fingerprint is not that of the marks sent with it.');
      const owner = givenBy(db, link.studyId, route);
      if (owner !== undefined && owner !== link.token)
        return refuse(409, 'Somebody else has judged this route already: write a comment instead.');
      if (owner === undefined && verdictsUnder(db, link.token) >= MOST_VERDICTS)
        return refuse(
          429,
          `Under one link at most ${MOST_VERDICTS.toLocaleString('en')} verdicts are taken.`,
        );
      const verdict = { ...read.body, reviewer: link.name, at: now };
      return json(putVerdict(db, link.studyId, verdict, link.token), 201);
    },
    DELETE: async ({ db, link, request }) => {
      const read = await readBody(request, VerdictToTakeBack, MOST_SENT);
      if (!read.ok) return read.response;
      if (givenBy(db, link.studyId, read.body.route) !== link.token)
        return refuse(403, 'This verdict is somebody else’s: only who gave it, or an author, takes it back.');
      removeVerdict(db, link.studyId, read.body.route);
      return json({});
    },
  },
  comments: {
    GET: ({ db, link }) => json(listComments(db, link.studyId)),
    POST: async ({ db, link, request, now }) => {
      const read = await readBody(request, CommentToAdd, MOST_SENT);
      if (!read.ok) return read.response;
      if (commentsUnder(db, link.token) >= MOST_COMMENTS)
        return refuse(429, `Under one link at most ${MOST_COMMENTS} comments are taken.`);
      const comment = { ...read.body, author: link.name, at: now };
      return json(addComment(db, link.studyId, comment, link.token), 201);
    },
    DELETE: async ({ db, link, request }) => {
      const read = await readBody(request, CommentToRemove, MOST_SENT);
      if (!read.ok) return read.response;
      return removeOwnComment(db, link.studyId, read.body.id, link.token)
        ? json({})
        : refuse(403, 'This comment is somebody else’s, or gone: only one’s own can be removed.');
    },
  },
  draw: { GET: ({ db, link }) => json(findDraw(db, link.studyId)) },
  'follow-up': {
    // What cannot be read is told without the id, too.
    GET: ({ db, link, request }) =>
      findStudy(db, link.studyId) === null
        ? refuse(404, 'This study cannot be read at the moment: its authors know more.')
        : followUpOf(db, link.studyId, new URL(request.url).searchParams.get('ending')),
  },
};

/** When somebody wrote under a link, in the last minute; milliseconds since 1970. */
const written = new Map<string, number[]>();

/** Answers under a link, or refuses. */
export function answerReviewer(call: Call, door: string): Response | Promise<Response> {
  const { request, link, now } = call;
  const doors = Object.hasOwn(REVIEW_DOORS, door) ? REVIEW_DOORS[door] : undefined;
  const open =
    doors !== undefined && Object.hasOwn(doors, request.method) ? doors[request.method] : undefined;
  if (open === undefined)
    return refuse(403, 'A reviewer reads, walks, comments and judges; this would change the study.');
  if (request.method === 'GET') return open(call);
  // A clock that was put back must not shut the door for as long as that was.
  const recent = (written.get(link.token) ?? []).filter((at) => at > now - 60_000 && at <= now);
  written.set(link.token, [...recent, now]);
  if (recent.length >= MOST_A_MINUTE)
    return refuse(429, `That is more than ${MOST_A_MINUTE} changes in a minute: wait a little.`);
  return open(call);
}
