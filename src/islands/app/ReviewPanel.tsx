/** Links for reviewers: whom each is for, to be copied and withdrawn. */
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import { NothingSchema } from '../../wire/common';
import { LinkSchema, type Link } from '../../wire/links';
import { call } from '../ui/api';
import { toClipboard } from '../ui/clipboard';
import { whenText } from '../ui/format';
import { Panel } from '../ui/Panel';
import { NameField, ShortForm } from '../ui/ShortForm';
import { Problem } from '../ui/Problem';
import classes from './review-panel.module.css';
import { useStudy } from '../state/store';

export function ReviewPanel({ close }: { readonly close: () => void }) {
  const api = useStudy((state) => state.api);
  const [links, setLinks] = useState<readonly Link[] | null>(null);
  const [name, setName] = useState('');
  const [copied, setCopied] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    void call(v.array(LinkSchema), 'GET', `${api}/links`).then((reply) => {
      if (reply.ok) setLinks(reply.body);
      else setProblem(reply.problem);
    });
  }, [api]);
  const make = async () => {
    const reply = await call(LinkSchema, 'POST', `${api}/links`, { name });
    if (!reply.ok) {
      setProblem(reply.problem);
      return;
    }
    setProblem(null);
    setName('');
    setLinks([reply.body, ...(links ?? [])]);
  };
  const withdraw = async (link: Link) => {
    const reply = await call(NothingSchema, 'DELETE', `${api}/links`, { token: link.token });
    if (!reply.ok) setProblem(reply.problem);
    else setLinks((links ?? []).map((each) => (each === link ? { ...each, withdrawnAt: Date.now() } : each)));
  };
  const open = (links ?? []).filter(({ withdrawnAt }) => withdrawnAt === null);
  const withdrawn = (links ?? []).length - open.length;
  return (
    <Panel label="Reviewers" width={440} close={close} first="input">
      <p className={classes.about}>
        Whoever has a link reads the script, walks routes, and comments and judges under their own name. They
        can change nothing.
      </p>
      <ShortForm className={classes.make} send={make}>
        <NameField label="Whom the link is for" placeholder="Whom it is for" value={name} set={setName} />
        <button type="submit">Make a link</button>
      </ShortForm>
      <Problem of={problem} />
      <ul className={classes.links}>
        {open.map((link) => {
          const address = `${location.origin}/review/${link.token}`;
          return (
            <li key={link.token}>
              <p>
                <b>{link.name}</b> <small>since {whenText(link.createdAt)}</small>
              </p>
              <input
                readOnly
                aria-label={`Link for ${link.name}`}
                value={address}
                onFocus={(event) => event.target.select()}
              />
              <span>
                <button
                  type="button"
                  onClick={() => {
                    void toClipboard(address).then((isCopied) => {
                      if (isCopied) setCopied(link.token);
                      else setProblem('Copying is not allowed here: select the address instead.');
                    });
                  }}
                >
                  {copied === link.token ? 'Copied' : 'Copy'}
                </button>
                <button type="button" onClick={() => void withdraw(link)}>
                  Withdraw
                </button>
              </span>
            </li>
          );
        })}
      </ul>
      {links !== null && open.length === 0 && <p className={classes.about}>No link is open.</p>}
      {withdrawn > 0 && (
        <p className={classes.about}>
          {withdrawn} withdrawn: {withdrawn === 1 ? 'it opens' : 'they open'} nothing any more.
        </p>
      )}
    </Panel>
  );
}
