/** Text as respondents read it: bold, italic, links and lists; nothing else of Markdown, and no HTML. */
import { memo } from 'react';
import Markdown from 'react-markdown';

const ALLOWED = ['p', 'strong', 'em', 'a', 'ul', 'ol', 'li', 'br'];

export const RichText = memo(function RichText({ text }: { readonly text: string }) {
  return (
    <Markdown
      allowedElements={ALLOWED}
      unwrapDisallowed
      components={{
        a: ({ href, children }) => (
          <a href={href} target="_blank" rel="noreferrer">
            {children}
          </a>
        ),
      }}
    >
      {text}
    </Markdown>
  );
});

/** Keeps a respondent's own words from being read as Markdown. */
export function escapeMarkdown(words: string): string {
  return words.replace(/[\\`*_{}[\]()#+\-.!<>|~]/g, '\\$&');
}
