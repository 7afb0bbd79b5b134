/** How a form is sent: by its own code, and not by the browser. */
import type { FormEvent } from 'react';

/** For a form's `onSubmit`: the page stays where it is, and `act` is done with the form that was sent. */
export function submitting(
  act: (form: HTMLFormElement) => unknown,
): (event: FormEvent<HTMLFormElement>) => void {
  return (event) => {
    event.preventDefault();
    void act(event.currentTarget);
  };
}
