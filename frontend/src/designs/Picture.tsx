import { useEffect, useState } from "react";

const TRIES = 6;
const AGAIN_MS = 1200;

/** A small picture of a design. Many are drawn at once when a list is opened: one that has to wait is asked for again. */
export function Picture({ id, revision }: { id: number; revision: number }) {
  const [tried, setTried] = useState(0);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    if (!failed || tried >= TRIES) return;
    const timer = setTimeout(() => {
      setFailed(false);
      setTried(tried + 1);
    }, AGAIN_MS);
    return () => clearTimeout(timer);
  }, [failed, tried]);
  return (
    <span className="flex h-14 w-20 shrink-0 items-center justify-center">
      {!failed && (
        <img
          src={`/api/designs/${id}/picture.svg?revision=${revision}&try=${tried}`}
          alt=""
          className="max-h-14 max-w-20"
          onError={() => setFailed(true)}
        />
      )}
    </span>
  );
}
