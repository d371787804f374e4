import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../../api/client";
import type { YarnAnswersView } from "../../api/schema";
import { useDocument } from "../../bench/context";
import { NumberField } from "../../ui/NumberField";
import { Trouble } from "../../ui/Trouble";

/** What the designer asks first: does it come out of the drawer, what runs out, and how large can it be. */
export function Answers({ answers }: { answers: YarnAnswersView }) {
  const document = useDocument();
  const [grams, setGrams] = useState<number | null>(null);
  const ask = useMutation({
    mutationFn: () => unwrap(client.POST("/api/yarn/largest", { body: { document, have_g: grams } })),
  });
  const found = ask.data;
  return (
    <section className="sheet mb-3 flex flex-wrap items-start gap-x-10 gap-y-3 p-4" aria-label="The drawer">
      <div>
        <h2 className="text-quiet text-sm font-normal">Out of the drawer comes</h2>
        <p className="font-text text-3xl font-semibold" data-testid="largest-size">
          {answers.in_drawer ? (answers.largest ?? "no size yet") : "–"}
        </p>
        <p className="text-quiet text-sm">
          {!answers.in_drawer
            ? "Say under Swatch what lies in the drawer."
            : answers.largest
              ? "the largest size for which it is enough in 9 of 10 bags"
              : "it is not enough for any size in 9 of 10 bags"}
        </p>
      </div>
      {answers.scarce && (
        <div>
          <h2 className="text-quiet text-sm font-normal">First to run out</h2>
          <p className="font-text text-wrong text-3xl font-semibold" data-testid="scarce">
            {answers.scarce}
          </p>
        </div>
      )}
      <div>
        <div className="flex items-end gap-2">
          <NumberField
            className="w-44"
            label="How large with so much"
            unit="g"
            digits={0}
            optional
            value={grams}
            onChange={setGrams}
            onClear={() => setGrams(null)}
          />
          <button
            type="button"
            className="button-plain"
            disabled={ask.isPending || (grams === null && !answers.in_drawer)}
            onClick={() => ask.mutate()}
          >
            {ask.isPending ? "Trying sizes…" : grams === null ? "Try the drawer" : "Try"}
          </button>
        </div>
        {found && (
          <p className="mt-1 text-sm" role="status" data-testid="largest">
            {found.problem || (
              <>
                <strong>
                  {found.width} × {found.height}
                </strong>
                , {found.percent} % of the sample: about {found.grams} g; it is enough in {found.enough} of
                100 bags
              </>
            )}
          </p>
        )}
        <Trouble error={ask.error} />
      </div>
      {answers.doubted.length > 0 && (
        <p role="alert" className="text-wrong w-full text-sm">
          Not used, as it cannot be what it is said to be: {answers.doubted.join("; ")}. Weigh again, or
          correct what was weighed.
        </p>
      )}
    </section>
  );
}
