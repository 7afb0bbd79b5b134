/** What concerns the study as a whole: how it is shown, what new questions start with, the look of the respondent's pages. */
import type { Draft } from 'immer';
import { useState } from 'react';
import type { MissingCode, Settings } from '../../core/document/types';
import { editSettings } from '../../core/editing/structure';
import { accentProblem, FONTS } from '../ui/theme';
import { useStudy } from '../state/store';
import { PictureButton } from '../ui/PictureButton';
import { token } from '../ui/token';
import { SlipCheck, SlipNumber, SlipRow, SlipSelect, SlipText } from './SlipFields';
import { Problem } from '../ui/Problem';
import classes from './slip.module.css';
import looks from './study-slip.module.css';
import primitives from '../ui/primitives.module.css';

export function StudySlip() {
  const settings = useStudy((state) => state.document.settings) ?? {};
  const missing = useStudy((state) => state.document.missing);
  const commit = useStudy((state) => state.commit);
  const edit = (label: string, change: (draft: Draft<Settings>) => void) =>
    commit(editSettings(label, change));
  return (
    <>
      <h2>The study</h2>
      <ShowingCard settings={settings} edit={edit} />
      <h2>New questions</h2>
      <DefaultsCard settings={settings} edit={edit} />
      <h2>The respondent’s pages</h2>
      <ThemeCard theme={settings.theme ?? {}} edit={edit} />
      <h2>Codes for what is missing</h2>
      <div className={primitives.card}>
        {missing.map((entry, at) => (
          <MissingRow key={entry.reason} entry={entry} at={at} />
        ))}
      </div>
    </>
  );
}

type EditSettings = (label: string, change: (draft: Draft<Settings>) => void) => string | null;

interface CardProps {
  readonly settings: Settings;
  readonly edit: EditSettings;
}

/** How the study is filled in and shown. */
function ShowingCard({ settings, edit }: CardProps) {
  const language = useStudy((state) => state.document.language);
  const commit = useStudy((state) => state.commit);
  return (
    <div className={primitives.card}>
      <SlipText
        field="study/language"
        label="Language"
        value={language}
        size={6}
        hint="As a tag: en, cy, de-AT."
        take={(text) =>
          commit({ label: 'Change the language', apply: (draft) => void (draft.language = text.trim()) })
        }
      />
      <SlipSelect
        field="study/mode"
        label="Filled in"
        value={settings.mode ?? 'self'}
        choices={[
          ['self', 'by the respondent'],
          ['interviewer', 'by an interviewer'],
        ]}
        hint={settings.mode === 'interviewer' ? 'Instructions are shown to the interviewer.' : undefined}
        choose={(mode) => edit('Change who fills it in', (draft) => void (draft.mode = mode))}
      />
      <SlipSelect
        field="study/numbers"
        label="Numbers"
        value={settings.numbers ?? 'running'}
        choices={[
          ['running', 'running'],
          ['fixed', 'fixed'],
          ['none', 'none'],
        ]}
        hint={
          settings.numbers === 'fixed'
            ? 'Each item keeps its own.'
            : settings.numbers === 'none'
              ? undefined
              : 'They close up after a skip.'
        }
        choose={(numbers) => edit('Change the numbers', (draft) => void (draft.numbers = numbers))}
      />
      <SlipSelect
        field="study/pages"
        label="Pages"
        value={settings.pages ?? 'section'}
        choices={[
          ['section', 'by section'],
          ['item', 'one item each'],
        ]}
        hint={settings.pages === 'item' ? undefined : 'Page breaks split a section.'}
        choose={(pages) => edit('Change the pages', (draft) => void (draft.pages = pages))}
      />
      <SlipCheck
        field="study/progress"
        label="Progress"
        words="shown to respondents"
        checked={settings.progress ?? true}
        set={(progress) => edit('Show the progress', (draft) => void (draft.progress = progress))}
      />
      <SlipCheck
        field="study/humanCheck"
        label="Human check"
        words="comes before the first page"
        checked={settings.humanCheck ?? false}
        set={(on) =>
          edit('Change the human check', (draft) => {
            if (on) draft.humanCheck = true;
            else delete draft.humanCheck;
          })
        }
      />
      <SlipNumber
        field="study/maxMinutes"
        label="At most"
        value={settings.maxMinutes}
        whole={false}
        unit="minutes"
        hint="Routes that take longer are a snag."
        take={(minutes) =>
          edit('Limit the minutes', (draft) => {
            if (minutes === undefined) delete draft.maxMinutes;
            else draft.maxMinutes = minutes;
          })
        }
      />
    </div>
  );
}

/** What new questions start with. */
function DefaultsCard({ settings: { defaults = {} }, edit }: CardProps) {
  const start = (part: Settings['defaults']) =>
    edit('Change what new questions start with', (draft) => {
      draft.defaults = { ...draft.defaults, ...part };
    });
  return (
    <div className={primitives.card}>
      <SlipCheck
        field="study/required"
        label="An answer"
        words="is required"
        checked={defaults.required ?? false}
        set={(required) => start({ required })}
      />
      <SlipCheck
        field="study/dontKnow"
        label="Don’t know"
        words="is offered"
        checked={defaults.dontKnow ?? false}
        set={(dontKnow) => start({ dontKnow })}
      />
    </div>
  );
}

interface ThemeProps {
  readonly theme: NonNullable<Settings['theme']>;
  readonly edit: EditSettings;
}

function ThemeCard({ theme, edit }: ThemeProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const set = (key: keyof ThemeProps['theme'], value: string | undefined) => {
    const refused = edit('Change the look', (draft) => {
      const next = { ...draft.theme };
      if (value === undefined) delete next[key];
      else next[key] = value;
      draft.theme = next;
    });
    setProblem(refused);
  };
  const contrast = theme.accent === undefined ? null : accentProblem(theme.accent);
  return (
    <div className={primitives.card}>
      <SlipRow label="Accent" hint={contrast ?? undefined}>
        <input
          type="color"
          aria-label="Accent colour"
          className={looks.colour}
          value={theme.accent ?? token('--pine-mid')}
          onChange={(event) => set('accent', event.target.value)}
        />
        <code>{theme.accent ?? 'pine'}</code>
        {theme.accent !== undefined && (
          <button type="button" className={classes.door} onClick={() => set('accent', undefined)}>
            as it was
          </button>
        )}
      </SlipRow>
      <SlipSelect
        field="study/font"
        label="Letters"
        value={theme.font ?? FONTS[0]}
        choices={FONTS.map((font) => [font, font] as const)}
        choose={(font) => set('font', font)}
      />
      <SlipRow label="Logo" hint="PNG, JPEG, GIF or WebP, up to 400 kB; stored with the questionnaire.">
        {theme.logo !== undefined && <img src={theme.logo} alt="The logo" className={looks.logo} />}
        <PictureButton
          words={theme.logo === undefined ? 'Choose a picture' : 'Another'}
          take={(read) => {
            if (read.ok) set('logo', read.src);
            else setProblem(read.problem);
          }}
        />
        {theme.logo !== undefined && (
          <button type="button" className={classes.door} onClick={() => set('logo', undefined)}>
            none
          </button>
        )}
      </SlipRow>
      <Problem of={problem} className={looks.refused} />
    </div>
  );
}

function MissingRow({ entry, at }: { readonly entry: MissingCode; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const missing = useStudy((state) => state.document.missing);
  return (
    <SlipNumber
      field={`study/missing/${entry.reason}`}
      label={entry.label}
      value={entry.code}
      optional={false}
      take={(code) =>
        missing.some((other, n) => n !== at && other.code === code)
          ? `Another reason has the code ${code}.`
          : commit({
              label: `Code ${entry.label}`,
              apply: (draft) => {
                const found = draft.missing[at];
                if (found !== undefined && code !== undefined) found.code = code;
              },
            })
      }
    />
  );
}
