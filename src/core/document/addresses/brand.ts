/** Text of one meaning: a brand keeps a key of one kind from being taken for one of another. */
declare const brand: unique symbol;
export type Branded<Brand extends string> = string & { readonly [brand]: Brand };
