import { useMutation, useQuery } from "@tanstack/react-query";
import { CircleStop } from "lucide-react";
import { useEffect, useState } from "react";
import { client, unwrap } from "../api/client";
import { useOldestJob, type Job } from "../api/jobs";

// Most work is answered sooner, and nothing is shown of it.
const FIRST_AFTER_MS = 1200;
const EACH_MS = 1000;

function Progress({ job }: { job: Job }) {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), FIRST_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  const params = { path: { name: job.name } };
  const state = useQuery({
    queryKey: ["job", job.name],
    queryFn: () => unwrap(client.GET("/api/jobs/{name}", { params })),
    enabled: late,
    refetchInterval: EACH_MS,
    gcTime: 0,
    retry: false,
  });
  const stop = useMutation({ mutationFn: () => unwrap(client.DELETE("/api/jobs/{name}", { params })) });
  if (!state.data?.under_way) return null;
  const { stage, done, of } = state.data;
  return (
    <aside
      aria-label="Long work"
      // In a wide window below the steps, where it covers nothing that is pressed.
      className="sheet fixed bottom-4 left-1/2 z-40 flex w-[min(34rem,calc(100vw-2rem))] -translate-x-1/2 items-center gap-3 px-4 py-3 shadow-lg lg:left-2 lg:w-40 lg:translate-x-0 lg:flex-col lg:items-stretch lg:p-3"
    >
      <div className="min-w-0 flex-1">
        <p role="status" className="truncate text-sm lg:whitespace-normal">
          {stage || "Being worked"}
          {of > 1 && `: ${done} of ${of}`}
        </p>
        <progress
          className="progress mt-1 block w-full"
          aria-label="How far this is"
          value={done}
          max={Math.max(of, 1)}
        />
      </div>
      <button
        type="button"
        className="button-plain"
        disabled={stop.isPending || stop.isSuccess}
        onClick={() => stop.mutate()}
      >
        <CircleStop size={16} aria-hidden /> {stop.isPending || stop.isSuccess ? "Stopping…" : "Stop"}
      </button>
    </aside>
  );
}

/** How far long work is, with a way to stop it; nothing while all is quick. */
export function LongWork() {
  const job = useOldestJob();
  return job ? <Progress key={job.name} job={job} /> : null;
}
