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
 * One place is sent at a time: two on the way could arrive in the wrong order.
 */
export function usePlace(token: string, onServer: number, steps: number): Place {
  const key = `rillstep.place.${token}`;
  const [at, setAt] = useState(() => {
    const kept = localStorage.getItem(key);
    return Math.min(steps, kept === null ? onServer : Number(kept));
  });
  const [sent, setSent] = useState(onServer);
  const [sending, setSending] = useState<number | null>(null);
  const [offline, setOffline] = useState(false);

  if (sending === null && at !== sent) setSending(at);

  useEffect(() => {
    if (sending === null) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let current = true;
    const send = () => {
      unwrap(client.PUT("/api/t/{token}/place", { params: { path: { token } }, body: { place: sending } }))
        .then(() => {
          if (!current) return;
          if (localStorage.getItem(key) === String(sending)) localStorage.removeItem(key);
          setOffline(false);
          setSent(sending);
          setSending(null);
        })
        .catch((error: unknown) => {
          if (!current) return;
          const refused = error instanceof ApiError && !error.unreachable && error.problem.status !== 429;
          setOffline(!refused);
          if (!refused) timer = setTimeout(send, TRY_AGAIN_MS);
        });
    };
    send();
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [sending, token, key]);

  const go = (to: number) => {
    const next = Math.max(0, Math.min(steps, to));
    localStorage.setItem(key, String(next));
    setAt(next);
    window.scrollTo({ top: 0 });
  };
  return { at, offline, go };
}
