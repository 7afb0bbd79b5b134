/** The passphrase of an installation: compared by scrypt, in a time that tells nothing of it. */
import { createHmac, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

/** What a try takes, in the terms of scrypt (RFC 7914). */
export type Cost = Readonly<Required<Pick<ScryptOptions, 'N' | 'r' | 'p' | 'maxmem'>>>;

/** As OWASP's cheat sheet on storing passwords asks of scrypt: 64 MB and some tenths of a second a try. */
export const COST: Cost = { N: 2 ** 16, r: 8, p: 2, maxmem: 128 * 2 ** 20 };
const BYTES = 32;

export class Passphrase {
  /** One at a time: many at once would take the memory of the machine. */
  private last: Promise<unknown> = Promise.resolve();

  private constructor(
    private readonly key: Buffer,
    private readonly salt: Buffer,
    private readonly cost: Cost,
  ) {}

  /** `salt`: of this installation, and the same at every start. */
  static async of(text: string, salt: Buffer, cost = COST): Promise<Passphrase> {
    return new Passphrase(await derive(text, salt, cost), salt, cost);
  }

  matches(attempt: string): Promise<boolean> {
    const result = this.last.then(async () =>
      timingSafeEqual(await derive(attempt, this.salt, this.cost), this.key),
    );
    this.last = result.catch(() => undefined);
    return result;
  }

  /** The checksum under which a session is kept. Under another passphrase it is another, so that no session outlives it. */
  checksum(token: string): string {
    return createHmac('sha256', this.key).update(token).digest('hex');
  }
}

function derive(text: string, salt: Buffer, cost: Cost): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    // However a keyboard puts an accent on a letter.
    scrypt(text.normalize('NFKC'), salt, BYTES, cost, (error, key) => (error ? reject(error) : resolve(key)));
  });
}
