import { useMutation } from "@tanstack/react-query";
import { Scale } from "lucide-react";
import { client, unwrap } from "../api/client";
import { useCraft } from "../bench/useCraft";

/** Reads the kitchen scale; there only where one is connected. */
export function WeighNow({ what, onGrams }: { what: string; onGrams: (grams: number) => void }) {
  const craft = useCraft();
  const weigh = useMutation({
    mutationFn: () => unwrap(client.GET("/api/scale")),
    onSuccess: (reading) => {
      if (reading.grams !== null) onGrams(reading.grams);
    },
  });
  if (!craft?.has_scale) return null;
  return (
    <span>
      <button
        type="button"
        className="button-bare"
        aria-label={`${weigh.isPending ? "weighing…" : "Weigh now"}: ${what}`}
        disabled={weigh.isPending}
        onClick={() => weigh.mutate()}
      >
        <Scale size={15} aria-hidden /> {weigh.isPending ? "weighing…" : "Weigh now"}
      </button>
      {(weigh.data?.problem || weigh.error) && (
        <span role="alert" className="text-wrong block text-[13px]">
          {weigh.data?.problem ?? weigh.error?.message}
        </span>
      )}
    </span>
  );
}
