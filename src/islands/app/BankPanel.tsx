/** The bank that all studies share: searched, put into this study, and where each thing is used. */
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import { optionsOf } from '../../core/document/shape';
import { insertFromBank, insertProblem, type BankContent } from '../../core/editing/bank';
import { BankEntrySchema } from '../../wire/bank';
import { NothingSchema } from '../../wire/common';
import { placeSelected } from '../state/study-state';
import { call } from '../ui/api';
import { plural } from '../ui/format';
import { FindField } from '../ui/FindField';
import { Problem } from '../ui/Problem';
import classes from './bank.module.css';
import { keepInBank } from '../state/bank';
import { Panel } from '../ui/Panel';
import { useStudy, useStudyStore } from '../state/store';

type Entry = v.InferOutput<typeof BankEntrySchema>;

const KIND_WORDS = { question: 'question', answers: 'answer list', section: 'section' } as const;

export function BankPanel({ close }: { readonly close: () => void }) {
  const [entries, setEntries] = useState<readonly Entry[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [query, setQuery] = useState('');
  const [removed, setRemoved] = useState<Entry | null>(null);
  const load = () =>
    call(v.array(BankEntrySchema), 'GET', '/api/bank').then((reply) => {
      if (reply.ok) setEntries(reply.body);
      else setProblem(reply.problem);
    });
  useEffect(() => void load(), []);
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const found = (entries ?? []).filter(({ title, content }) => {
    const text = `${title} ${wordsOf(content)}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const remove = async (entry: Entry) => {
    const reply = await call(NothingSchema, 'DELETE', '/api/bank', { id: entry.id });
    if (!reply.ok) {
      setProblem(reply.problem);
      return;
    }
    setRemoved(entry);
    setEntries((entries ?? []).filter(({ id }) => id !== entry.id));
  };
  const putBack = async ({ title, content }: Entry) => {
    setProblem(await keepInBank(title, content));
    setRemoved(null);
    await load();
  };
  return (
    <Panel label="Bank" width={440} close={close} first="input">
      <div className={classes.head}>
        <FindField label="Search the bank" value={query} set={setQuery} />
        <button type="button" onClick={close}>
          Close
        </button>
      </div>
      <Problem of={problem} />
      {removed !== null && (
        <p role="status" className={classes.acts}>
          <span>“{removed.title}” was taken out.</span>
          <button type="button" onClick={() => void putBack(removed)}>
            Put it back
          </button>
        </p>
      )}
      {entries?.length === 0 && (
        <p className={classes.empty}>
          Nothing is kept here yet. Select a question or a section and choose “Keep in the bank”; all your
          studies can then use it.
        </p>
      )}
      {entries !== null && entries.length > 0 && found.length === 0 && (
        <p className={classes.empty}>Nothing in the bank has “{query}” in it.</p>
      )}
      <ul className={classes.entries}>
        {found.map((entry) => (
          <li key={entry.id}>
            <Row entry={entry} remove={() => void remove(entry)} />
          </li>
        ))}
      </ul>
    </Panel>
  );
}

function Row({ entry, remove }: { readonly entry: Entry; readonly remove: () => void }) {
  const store = useStudyStore();
  const selection = useStudy((state) => state.selection);
  const document = useStudy((state) => state.document);
  const [said, setSaid] = useState<string | null>(null);
  const [seeing, setSeeing] = useState(false);
  const { title, content, uses } = entry;
  // At the end where nothing is selected.
  const place = placeSelected(document, selection) ?? { section: document.sections.length - 1, item: null };
  const insert = () => {
    const before = insertProblem(document, place, content);
    setSaid(before ?? store.getState().commit(insertFromBank(document, place, content)) ?? 'Put in.');
  };
  const times = uses.reduce((sum, { names }) => sum + names.length, 0);
  return (
    <>
      <p>
        <b>{title}</b> <small>{KIND_WORDS[content.kind]}</small>
      </p>
      <p className={classes.words}>{wordsOf(content)}</p>
      <div className={classes.acts}>
        <button type="button" onClick={insert}>
          {content.kind === 'answers' ? 'Use these answers' : 'Put in'}
        </button>
        <button type="button" aria-expanded={seeing} onClick={() => setSeeing(!seeing)}>
          Used {plural(times, 'time')}
        </button>
        <button type="button" onClick={remove}>
          Take out of the bank
        </button>
      </div>
      {seeing && (
        <ul className={classes.uses}>
          {uses.map((use) => (
            <li key={use.study}>
              <a href={`/studies/${use.study}/script`}>{use.title}</a>: {use.names.join(', ')}
            </li>
          ))}
          {uses.length === 0 && <li>In no study as it stands here.</li>}
        </ul>
      )}
      {said !== null && <p role="status">{said}</p>}
    </>
  );
}

function wordsOf(content: BankContent): string {
  switch (content.kind) {
    case 'question':
      return `${content.question.text} ${optionsOf(content.question.answer)
        .map(({ label }) => label)
        .join(' / ')}`;
    case 'answers':
      return content.options.map(({ code, label }) => `${code} ${label}`).join(' / ');
    case 'section':
      return content.section.items
        .flatMap((item) => (item.kind === 'page_break' ? [] : [item.text]))
        .join(' / ');
    default:
      return content satisfies never;
  }
}
