/** All comments of the study, open ones first, each a door to what it is about. */
import { readAddress, type Address } from '../../core/document/addresses';
import { selectionOf } from '../../core/views/places';
import { useStudy } from '../state/store';
import { Entry } from './CommentCards';
import slip from './slip.module.css';
import primitives from '../ui/primitives.module.css';

function placeCommented(place: Address): string {
  const { kind, name, detail } = readAddress(place);
  if (kind === 'study') return 'study';
  return detail === null ? name : `${name}, skip ${detail}`;
}

export function CommentsSlip() {
  const comments = useStudy((state) => state.comments);
  const select = useStudy((state) => state.select);
  const open = comments.filter(({ settledBy }) => settledBy === null);
  const settled = comments.filter(({ settledBy }) => settledBy !== null);
  const list = (title: string, some: typeof comments) =>
    some.length > 0 && (
      <>
        <h2>{title}</h2>
        <div className={primitives.card}>
          {some.map((comment) => (
            <div key={comment.id}>
              <button type="button" className={slip.door} onClick={() => select(selectionOf(comment.place))}>
                {placeCommented(comment.place)}
              </button>
              <Entry comment={comment} />
            </div>
          ))}
        </div>
      </>
    );
  return (
    <>
      {comments.length === 0 && (
        <>
          <h2>Comments</h2>
          <div className={primitives.card}>
            <p className={slip.plain}>
              Nobody has commented yet. Select an item, a section or an ending, and choose “Comment on this”.
            </p>
          </div>
        </>
      )}
      {list(`Open comments (${open.length})`, open)}
      {list(`Settled (${settled.length})`, settled)}
    </>
  );
}
