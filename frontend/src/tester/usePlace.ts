import { useEffect, useState } from "react";
import { ApiError, client, unwrap } from "../api/client";

const TRY_AGAIN_MS = 3000;

interface Place {
  at: number;
  offline: boolean;
  go: (to: number) => void;
}

/**
 * The step that the tester is at. It is kept on this phone at once and sent to the server, again and
 * again while there is no connection; a place kept here that was not sent yet wins over the server's.
 */
export function usePlace(token: string, onServer: number, steps: number): Place {
  const key = `rillstep.place.${token}`;
  const [at, setAt] = useState(() => {
    const kept = localStorage.getItem(key);
    return Math.min(steps, kept === null ? onServer : Number(kept));
  });
  const [sent, setSent] = useState(onServer);
  const [offline, setOffline] = useState(false);
  const [tries, setTries] = useState(0);

  useEffect(() => {
    if (at === sent) return;
    let current = true;
    let timer: ReturnType<typeof setTimeout> | undefined;
    unwrap(client.PUT("/api/t/{token}/place", { params: { path: { token } }, body: { place: at } }))
      .then(() => {
        if (!current) return;
        localStorage.removeItem(key);
        setSent(at);
        setOffline(false);
      })
      .catch((error: unknown) => {
        if (!current) return;
        const unreachable = !(error instanceof ApiError) || error.unreachable || error.problem.status === 429;
        setOffline(unreachable);
        if (unreachable) timer = setTimeout(() => setTries((n) => n + 1), TRY_AGAIN_MS);
      });
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [at, sent, tries, token, key]);

  const go = (to: number) => {
    const next = Math.max(0, Math.min(steps, to));
    localStorage.setItem(key, String(next));
    setAt(next);
    window.scrollTo({ top: 0 });
  };
  return { at, offline, go };
}
