/** Coded rows of a study that are kept: the list, adding some, taking some away. */
import * as v from 'valibot';
import { readBytes, refuse } from '../../../../../server/respond';
import { created, withStudy } from '../../../../../server/with-study';
import { listDatasets, putDataset, removeDataset } from '../../../../../store/datasets';
import { packedProblem } from '../../../../../store/packed';
import { DatasetToKeep, DatasetToRemove, type Dataset } from '../../../../../wire/datasets';

/** Packed. */
const MOST_BYTES = 50_000_000;

export const GET = withStudy(({ db, id }): Dataset[] => listDatasets(db, id));

/** The body is the rows; what they are called and how many there are stands in the address. */
export const POST = withStudy(async ({ db, id, request, url, now }) => {
  const about = v.safeParse(DatasetToKeep, Object.fromEntries(url.searchParams));
  if (!about.success) return refuse(400, `These rows cannot be kept: ${about.issues[0].message}.`);
  const read = await readBytes(request, MOST_BYTES, 'Packed, these rows come to');
  if (!read.ok) return read.response;
  const body = Buffer.from(read.bytes);
  const problem = await packedProblem(body);
  if (problem !== null) return refuse(422, problem);
  putDataset(db, id, { ...about.output, body, at: now });
  return created(listDatasets(db, id));
});

export const DELETE = withStudy(DatasetToRemove, ({ db, id, body }) => {
  removeDataset(db, id, body.id);
  return listDatasets(db, id);
});
