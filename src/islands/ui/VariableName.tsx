/** The name of a variable: where there is no room for all of it, it goes on after an underscore. */
import { Fragment } from 'react';

export function VariableName({ name }: { readonly name: string }) {
  return name.split(/(?<=_|#)/).map((part, n) => (
    <Fragment key={n}>
      {n > 0 && <wbr />}
      {part}
    </Fragment>
  ));
}
