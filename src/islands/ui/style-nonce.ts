/** What the page was told to let through by a style that is made while it runs. */
export function styleNonce(): string {
  return document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '';
}
