/** All that a torture is made of. */
import { authors } from './authors';
import { clock } from './clock';
import { conditions } from './conditions';
import { databases } from './databases';
import { documents } from './documents';
import { files } from './files';
import { fullDisk } from './full-disk';
import { kills } from './kills';
import type { SeededPart, TimedPart } from './part';
import { requests } from './requests';

export const SEEDED: readonly SeededPart[] = [documents, conditions, files, requests, databases];
export const TIMED: readonly TimedPart[] = [kills, authors, fullDisk, clock];
