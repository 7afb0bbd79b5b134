/** Text of one meaning: a brand keeps a key of one kind from being taken for one of another. */
import * as v from 'valibot';

declare const brand: unique symbol;
export type Branded<Brand extends string> = string & { readonly [brand]: Brand };

/** For doors: text that `parse` takes for a key; `sentence` says what is meant. */
export function keySchema<Key extends string>(parse: (text: string) => Key | null, sentence: string) {
  return v.pipe(
    v.string(),
    v.check((text) => parse(text) !== null, sentence),
    v.transform((text) => text as Key),
  );
}
