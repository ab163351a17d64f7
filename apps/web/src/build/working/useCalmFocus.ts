import { useCallback, useEffect, useRef, useState } from 'react';

/** Milliseconds after a press is over in which its click still arrives. */
const clickDelay = 60;

/**
 * Whether a field has the focus, for showing what belongs to it. A press elsewhere takes the focus away at once; the
 * answer changes only when that press is over, so that nothing moves away from under the pointer.
 */
export function useCalmFocus(): { isFocused: boolean; onFocusChange: (hasFocus: boolean) => void } {
  const [isFocused, setFocused] = useState(false);
  const isPressed = useRef(false);
  const hasFocus = useRef(false);

  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const press = () => {
      clearTimeout(timer);
      isPressed.current = true;
    };
    // A finger takes the focus away only after it is lifted, with the click.
    const release = () => {
      clearTimeout(timer);
      timer = setTimeout(() => {
        isPressed.current = false;
        setFocused(hasFocus.current);
      }, clickDelay);
    };
    window.addEventListener('pointerdown', press, { capture: true });
    window.addEventListener('pointerup', release, { capture: true });
    window.addEventListener('pointercancel', release, { capture: true });
    return () => {
      clearTimeout(timer);
      window.removeEventListener('pointerdown', press, { capture: true });
      window.removeEventListener('pointerup', release, { capture: true });
      window.removeEventListener('pointercancel', release, { capture: true });
    };
  }, []);

  const onFocusChange = useCallback((next: boolean) => {
    hasFocus.current = next;
    if (!isPressed.current) setFocused(next);
  }, []);
  return { isFocused, onFocusChange };
}
