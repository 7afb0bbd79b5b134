/** Comments on the questionnaire: made, settled, and kept with what they are about when that is renamed. */
import { useEffect } from 'react';
import { renamedPlaces } from '../../core/views/places';
import { NothingSchema } from '../../wire/common';
import { call } from '../ui/api';
import type { StudyStore } from './study-state';

/** While a study is open: a comment follows what it is about through every rename, undone ones too. */
export function useCommentsFollow(store: StudyStore): void {
  useEffect(
    () =>
      store.subscribe(({ document }, { document: before }) => {
        const { id, comments, setComments, readOnly } = store.getState();
        if (document === before || readOnly !== null) return;
        const keys = [...new Set(comments.map(({ place }) => place))];
        if (keys.length === 0) return;
        const moved = renamedPlaces(before, document, keys);
        if (moved.length === 0) return;
        const to = new Map(moved.map((each) => [each.from, each.to]));
        setComments(
          comments.map((comment) => ({ ...comment, place: to.get(comment.place) ?? comment.place })),
        );
        for (const each of moved)
          void call(NothingSchema, 'PATCH', `/api/studies/${id}/comments`, { what: 'move', ...each });
      }),
    [store],
  );
}
