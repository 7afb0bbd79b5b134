/** What can be done with the study besides writing it. */
import {
  Download,
  History,
  Keyboard,
  Library,
  ListPlus,
  LogOut,
  Menu as MenuIcon,
  Search,
  Users,
} from 'lucide-react';
import { openPaste } from '../state/open-paste';
import { useStudy, useStudyStore } from '../state/store';
import type { Stop } from '../state/stops';
import { Menu } from '../ui/Menu';
import { signOut } from '../ui/sign-out';
import { allSaved } from '../state/all-saved';
import classes from './study.module.css';
import type { Panel } from './use-panel';

interface Props {
  readonly setPanel: (panel: Panel) => void;
  readonly goTo: (stop: Stop) => void;
  readonly canSignOut: boolean;
  /** Told why signing out did not work, as a sentence. */
  readonly say: (problem: string | null) => void;
}

export function StudyMenu({ setPanel, goTo, canSignOut, say }: Props) {
  const store = useStudyStore();
  const author = useStudy((state) => state.reviewer);
  const leave = () => void allSaved(store).then(signOut).then(say);
  return (
    <Menu
      label="Menu of the study"
      className={classes.icon}
      entries={[
        {
          words: 'Find anything',
          keys: 'Ctrl+K',
          icon: <Search size={15} />,
          does: () => setPanel('find'),
        },
        {
          words: 'Paste a list of questions',
          icon: <ListPlus size={15} />,
          does: () => {
            goTo('script');
            openPaste(store);
          },
        },
        { words: 'Bank of all studies', icon: <Library size={15} />, does: () => setPanel('bank') },
        { words: 'Links for reviewers', icon: <Users size={15} />, does: () => setPanel('review') },
        { words: 'History', icon: <History size={15} />, does: () => setPanel('history') },
        { words: 'Save as a file', icon: <Download size={15} />, does: () => setPanel('file') },
        {
          words: 'Keys of this view',
          keys: '?',
          icon: <Keyboard size={15} />,
          does: () => setPanel('keys'),
        },
        ...(canSignOut
          ? [
              {
                words: `Sign out, ${author}`,
                icon: <LogOut size={15} />,
                does: leave,
              },
            ]
          : []),
      ]}
    >
      <MenuIcon size={17} />
    </Menu>
  );
}
