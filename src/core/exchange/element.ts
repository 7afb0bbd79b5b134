/** An element of XML, with what stands in it: built as a value, before anybody writes or draws it. */

export interface Element {
  /** With its prefix, as it is written. */
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (Element | string)[];
}

type Content = Element | string | null | undefined | false;

/** Empty places are left out, so that what may lack can be written in its place. */
export function element(
  name: string,
  attributes: Readonly<Record<string, string | number | undefined>>,
  ...children: readonly (Content | readonly Content[])[]
): Element {
  const kept = children
    .flatMap((child): readonly Content[] =>
      Array.isArray(child) ? (child as Content[]) : [child as Content],
    )
    .filter((child): child is Element | string => child !== null && child !== undefined && child !== false);
  const given = Object.entries(attributes).filter(
    (entry): entry is [string, string | number] => entry[1] !== undefined,
  );
  return {
    name,
    attributes: Object.fromEntries(given.map(([key, value]) => [key, String(value)])),
    children: kept,
  };
}
