/** Looks for few routes that take every fork, beside the worker that counts: however long it takes, nobody waits for it. */
import { expose } from 'comlink';
import * as v from 'valibot';
import { contained } from '../contained';
import { documentGiven } from '../../core/document/read';
import { planOf } from '../../core/routing/planner';
import { lookForCover } from './look';
import { COVERED, type CoverApi } from './types';

/** Milliseconds from one telling to the next, and how many times as long as writing routes out takes, at least. */
const TELL_AFTER = 400;
const TIMES_AS_LONG = 8;

const api: CoverApi = {
  look(document, what, improved) {
    let next = performance.now() + TELL_AFTER;
    return lookForCover(planOf(documentGiven(document)), v.parse(v.picklist(COVERED), what), (soFar) => {
      const begun = performance.now();
      if (begun < next) return;
      improved(soFar());
      const now = performance.now();
      next = now + Math.max(TELL_AFTER, TIMES_AS_LONG * (now - begun));
    });
  },
};

expose(contained(api));
