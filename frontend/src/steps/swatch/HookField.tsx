import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../../api/client";
import { useBench, useChange, useDocument } from "../../bench/context";
import { NumberField } from "../../ui/NumberField";
import { Trouble } from "../../ui/Trouble";

/** The hook: what is set here is written into the text. */
export function HookField() {
  const { work } = useBench();
  const { text } = useDocument();
  const change = useChange();
  const [mm, setMm] = useState<number | null>(null);
  const write = useMutation({
    mutationFn: (hook_mm: number) => unwrap(client.POST("/api/text/hook", { body: { text, hook_mm } })),
    onSuccess: (answer) => {
      setMm(null);
      change("", (d) => ({ ...d, text: answer.text, hook_mm: null }));
    },
  });
  const hook = work?.hook ?? null;
  return (
    <section className="sheet flex flex-wrap items-end gap-4 p-4" aria-label="Hook">
      <NumberField
        className="w-32"
        label={`Hook${hook?.letter ? ` – US ${hook.letter}` : ""}`}
        unit="mm"
        digits={2}
        step={0.5}
        value={mm ?? hook?.mm ?? null}
        optional
        onChange={setMm}
      />
      <button
        type="button"
        className="button-plain"
        disabled={mm === null || mm <= 0 || write.isPending}
        onClick={() => mm !== null && write.mutate(mm)}
      >
        Write the hook into the text
      </button>
      <p className="text-quiet flex-1 text-[13px]">
        {hook?.of_text ? "As the text says it." : hook ? "The text does not say it yet." : ""} A hook a size
        smaller than the label says makes a firm bag.
      </p>
      <Trouble error={write.error} />
    </section>
  );
}
