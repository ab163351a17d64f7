import { useEffect, useState, type ComponentType } from 'react';

/**
 * A part of the screen that is loaded when it is first shown. While it is on its way nothing stands in its place; where
 * it cannot be had, a sentence says so, and the rest of the screen works on.
 */
export function lazily<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  let loaded: ComponentType<P> | null = null;
  return function Lazily(props: P) {
    const [Part, setPart] = useState(() => loaded);
    const [isLost, setLost] = useState(false);
    useEffect(() => {
      if (loaded) return;
      let isCurrent = true;
      load().then(
        (found) => {
          loaded = found;
          if (isCurrent) setPart(() => found);
        },
        () => isCurrent && setLost(true),
      );
      return () => {
        isCurrent = false;
      };
    }, []);
    if (Part) return <Part {...props} />;
    return isLost ? <Lost /> : null;
  };
}

function Lost() {
  return (
    <p role="alert" className="card m-3 px-4 py-2.5">
      This part could not be loaded. Once the server is there again, reload the page.
    </p>
  );
}
