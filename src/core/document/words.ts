/** Words and numbers as sentences have them. */

export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/**
 * A whole number with its thousands apart: “20,000”. Without the tables of languages, whose first use takes longer than
 * reading a questionnaire.
 */
export function numberWords(number: number): string {
  return String(number).replace(/\B(?=(\d{3})+$)/g, ',');
}
