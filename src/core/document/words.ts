/** Small turns of text that any sentence may need. */

export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
