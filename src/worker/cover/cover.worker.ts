/** Looks for few routes that take every fork, beside the worker that counts: however long it takes, nobody waits for it. */
import { expose } from 'comlink';
import * as v from 'valibot';
import { contained } from '../contained';
import { documentGiven } from '../../core/document/read';
import { planOf } from '../../core/routing/planner';
import { lookForCover } from './look';
import { COVERED, type CoverApi } from './types';

/** Milliseconds from one telling to the next: writing routes out takes time from looking for them. */
const TELL_AFTER = 400;

const api: CoverApi = {
  look(document, what, improved) {
    let told = performance.now();
    return lookForCover(planOf(documentGiven(document)), v.parse(v.picklist(COVERED), what), (soFar) => {
      if (performance.now() - told < TELL_AFTER) return;
      improved(soFar());
      told = performance.now();
    });
  },
};

expose(contained(api));
