/** Who asks: by the session of a browser, by what a trusted proxy says, or with the token of the installation. */
import { randomBytes } from 'node:crypto';
import { FROM_HEADER, PROGRAM_HEADER } from '../../server/inner.mjs';
import type { Store } from '../store/open';
import { endSession, openSession, saltOf, SESSION_LASTS, sessionAuthor } from '../store/sessions';
import type { Asker } from '../wire/asker';
import { COST, Passphrase } from './passphrase';
import type { ServerReach } from './reach';
import { Throttle } from './throttle';

const COOKIE = 'jolly_fork_session';
const LONGEST_NAME = 100;
const MINUTE = 60_000;

/** Nobody but the whole installation has a passphrase to guess: ASVS 4.0.3, 2.2.1, at most 100 tries an hour. */
const TRIES = { each: 5, eachSpan: 15 * MINUTE, all: 100, allSpan: 60 * MINUTE };

export type SigningIn =
  | { readonly ok: true; readonly cookie: string }
  /** `problem` is shown with the form. */
  | {
      readonly ok: false;
      readonly status: 400 | 401 | 429;
      readonly problem: string;
      readonly waitSeconds?: number;
    };

/** The way in of one installation. */
export class Entrance {
  private readonly throttle = new Throttle(TRIES);
  private passphrase: Promise<Passphrase> | null = null;

  constructor(
    private readonly db: Store,
    readonly reach: ServerReach,
    private readonly cost = COST,
  ) {}

  /** Null where signing in is asked for and they have not. */
  async asker(headers: Headers, now: number): Promise<Asker | null> {
    const { isGuarded, passphrase } = this.reach;
    if (!isGuarded) return { name: null, canSignOut: false };
    if (headers.get(PROGRAM_HEADER) !== null) return { name: null, canSignOut: false };
    const named = this.namedByProxy(headers);
    if (named !== null) return { name: named, canSignOut: false };
    const token = cookieOf(headers);
    if (passphrase === null || token === null) return null;
    const name = sessionAuthor(this.db, (await this.secret(passphrase)).checksum(token), now);
    return name === null ? null : { name, canSignOut: true };
  }

  /** Tries a passphrase. */
  async signIn(name: string, attempt: string, headers: Headers, now: number): Promise<SigningIn> {
    const { passphrase } = this.reach;
    const author = oneLine(name);
    if (passphrase === null)
      return { ok: false, status: 400, problem: 'Nobody signs in here with a passphrase.' };
    if (author === '' || attempt === '')
      return { ok: false, status: 400, problem: 'Both are needed: your name, and the passphrase.' };
    const address = this.addressOf(headers);
    const wait = this.throttle.take(address, now);
    if (wait > 0) {
      const minutes = Math.ceil(wait / MINUTE);
      return {
        ok: false,
        status: 429,
        problem: `There were too many tries. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, then try again.`,
        waitSeconds: Math.ceil(wait / 1000),
      };
    }
    const secret = await this.secret(passphrase);
    if (!(await secret.matches(attempt)))
      return { ok: false, status: 401, problem: 'This is not the passphrase.' };
    this.throttle.forgive(address);
    const earlier = cookieOf(headers);
    if (earlier !== null) endSession(this.db, secret.checksum(earlier));
    const token = randomBytes(32).toString('base64url');
    openSession(this.db, secret.checksum(token), author, now);
    return { ok: true, cookie: this.cookie(token, SESSION_LASTS / 1000, headers) };
  }

  /** Ends the session, and gives the cookie that takes the browser's away. */
  async signOut(headers: Headers): Promise<string> {
    const { passphrase } = this.reach;
    const token = cookieOf(headers);
    if (passphrase !== null && token !== null)
      endSession(this.db, (await this.secret(passphrase)).checksum(token));
    return this.cookie('', 0, headers);
  }

  private secret(passphrase: string): Promise<Passphrase> {
    this.passphrase ??= Passphrase.of(passphrase, saltOf(this.db), this.cost);
    return this.passphrase;
  }

  private isFromProxy(headers: Headers): boolean {
    return this.reach.proxy?.trusts(headers.get(FROM_HEADER) ?? '') ?? false;
  }

  private namedByProxy(headers: Headers): string | null {
    const { proxy } = this.reach;
    if (proxy === null || !this.isFromProxy(headers)) return null;
    // A header is read byte by byte; names in other letters come in UTF-8.
    const name = oneLine(Buffer.from(headers.get(proxy.header) ?? '', 'latin1').toString('utf8'));
    return name === '' ? null : name;
  }

  /** Whose tries are counted: behind the proxy, the last address on the way that is not the proxy's. */
  addressOf(headers: Headers): string {
    const from = headers.get(FROM_HEADER) ?? '';
    if (!this.isFromProxy(headers)) return from;
    const way = (headers.get('x-forwarded-for') ?? '').split(',').map((part) => part.trim());
    return way.findLast((address) => address !== '' && !(this.reach.proxy?.trusts(address) ?? false)) ?? from;
  }

  private cookie(value: string, seconds: number, headers: Headers): string {
    const isEncrypted = this.isFromProxy(headers) && headers.get('x-forwarded-proto') === 'https';
    return `${COOKIE}=${value}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${seconds}${isEncrypted ? '; Secure' : ''}`;
  }
}

function cookieOf(headers: Headers): string | null {
  const found = /(?:^|;\s*)jolly_fork_session=([\w-]{43})(?:;|$)/.exec(headers.get('cookie') ?? '');
  return found?.[1] ?? null;
}

function oneLine(name: string): string {
  return name
    .replaceAll(/[\p{Cc}\p{Cf}\s]+/gu, ' ')
    .trim()
    .slice(0, LONGEST_NAME);
}
