/** What a torture is made of. */
import type { Int } from '../agree/changes';
import { intOf } from '../agree/changes';

/** Something broken at random, the same for a seed, and what must hold of it all the same; throws where it does not. */
export interface SeededPart {
  readonly name: string;
  /** What is tried, for whoever reads the report. */
  readonly words: string;
  one(seed: number): Promise<void> | void;
}

/** Something that goes on for a time, with a server or a disk of its own. */
export interface TimedPart {
  readonly name: string;
  readonly words: string;
  /** Gives what was done, in words with figures; throws where something was lost or failed. */
  run(seconds: number, seed: number): Promise<string>;
}

/** What cannot be tried on this machine; the report says so aloud. */
export class CannotRunHere extends Error {}

export { intOf, type Int };

/** Bytes changed as disks, networks and hands change them. */
export function brokenBytes(bytes: Uint8Array, int: Int): Uint8Array {
  let broken = Buffer.from(bytes);
  const at = () => int(0, Math.max(0, broken.length - 1));
  for (let times = int(1, 4); times > 0; times -= 1)
    switch (int(0, 6)) {
      case 0:
        if (broken.length > 0) broken[at()] = int(0, 255);
        break;
      case 1:
        broken = broken.subarray(0, at());
        break;
      case 2: {
        const [from, length] = [at(), int(1, 512)];
        broken.fill(0, from, Math.min(broken.length, from + length));
        break;
      }
      case 3: {
        const from = at();
        const piece = broken.subarray(from, from + int(1, 2000));
        const to = at();
        broken = Buffer.concat([broken.subarray(0, to), piece, broken.subarray(to)]);
        break;
      }
      case 4: {
        const [from, length] = [at(), int(1, 2000)];
        broken = Buffer.concat([broken.subarray(0, from), broken.subarray(from + length)]);
        break;
      }
      case 5: {
        const from = at();
        for (let n = from; n < Math.min(broken.length, from + int(1, 64)); n += 1) broken[n] = int(0, 255);
        break;
      }
      default:
        broken = Buffer.concat([broken, Buffer.from(Array.from({ length: int(1, 600) }, () => int(0, 255)))]);
    }
  return broken;
}
