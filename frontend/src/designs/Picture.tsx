import { useEffect, useState } from "react";

const TRIES = 6;
const AGAIN_MS = 1200;

/** A small picture of a bag. Many are drawn at once when a list is opened: one that has to wait is asked for again. */
export function Picture({ src }: { src: string }) {
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
    <span className="flex h-16 w-22 shrink-0 items-center justify-center">
      {!failed && (
        <img
          src={`${src}${src.includes("?") ? "&" : "?"}try=${tried}`}
          alt=""
          className="max-h-16 max-w-22"
          onError={() => setFailed(true)}
        />
      )}
    </span>
  );
}
