/**
 * A field that narrows a list, with the list in a layer beside what it is for: arrows, Enter and what a screen reader is
 * told come from the package, as does keeping the layer inside the window.
 */
import {
  autoUpdate,
  flip,
  shift,
  useDismiss,
  useFloating,
  useInteractions,
  useListNavigation,
  useRole,
} from '@floating-ui/react';
import { useCallback, useId, useRef, useState, type HTMLProps } from 'react';

/** Kept free at the edges of the window, in pixels. */
const EDGE = 8;

interface Options {
  /** How many entries the list has now. */
  readonly count: number;
  readonly close: () => void;
}

/** While it is on the page it is open; the first entry is chosen until another is. */
export function useCombobox({ count, close }: Options) {
  const [at, setAt] = useState<number | null>(0);
  const id = useId();
  const entries = useRef<(HTMLElement | null)[]>([]);
  const current = Math.min(at ?? 0, count - 1);
  const {
    refs: { setReference, setFloating, setPositionReference },
    floatingStyles,
    context,
  } = useFloating({
    open: true,
    onOpenChange: (open) => {
      if (!open) close();
    },
    strategy: 'fixed',
    placement: 'bottom-end',
    // Moved by its corner, so that what lies in it stays sharp and can be measured at once.
    transform: false,
    middleware: [flip({ padding: EDGE }), shift({ padding: EDGE, crossAxis: true })],
    // Every frame, since rows above may be measured anew and move what it stands beside without a scroll.
    whileElementsMounted: (reference, floating, update) =>
      autoUpdate(reference, floating, update, { animationFrame: true }),
  });
  const { getReferenceProps, getFloatingProps, getItemProps } = useInteractions([
    useListNavigation(context, {
      listRef: entries,
      activeIndex: current < 0 ? null : current,
      onNavigate: (next) => setAt((before) => next ?? before),
      virtual: true,
      focusItemOnHover: false,
      scrollItemIntoView: { block: 'nearest' },
    }),
    useRole(context, { role: 'listbox' }),
    // Escape is the field's own: elsewhere it means other things.
    useDismiss(context, { escapeKey: false }),
  ]);
  const layerBeside = useCallback(
    (node: HTMLElement | null) => {
      setFloating(node);
      setPositionReference(node?.parentElement ?? null);
    },
    [setFloating, setPositionReference],
  );
  // The layer is not the list itself, so what the package says of lists is said by the list in it.
  const layer = (props: HTMLProps<HTMLElement>) => ({
    ...getFloatingProps(props),
    role: props.role,
    tabIndex: undefined,
    'aria-orientation': undefined,
  });
  return {
    /** Index of the chosen entry; -1 in an empty list. */
    current,
    choose: setAt,
    layerStyles: floatingStyles,
    fieldProps: (props: HTMLProps<Element> = {}) => ({
      ...getReferenceProps(props),
      // The package tells which entry is chosen by its id, and leaves it to the entries to have one.
      'aria-activedescendant': current < 0 ? undefined : `${id}-${current}`,
      ref: setReference,
    }),
    /** Of a layer that stands where its own styles say. */
    layerProps: (props: HTMLProps<HTMLElement> = {}) => ({ ...layer(props), ref: setFloating }),
    /** Of a layer beside the element it is in, with `layerStyles`. */
    besideProps: (props: HTMLProps<HTMLElement> = {}) => ({ ...layer(props), ref: layerBeside }),
    entryProps: (index: number) => ({
      ...getItemProps({ active: index === current, selected: index === current }),
      ref: (node: HTMLElement | null) => {
        entries.current[index] = node;
      },
      id: `${id}-${index}`,
      role: 'option',
      'aria-selected': index === current,
    }),
  };
}
