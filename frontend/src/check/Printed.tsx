import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap, whileBusy } from "../api/client";
import { ReaderChoices } from "../ui/ReaderChoices";
import { Trouble } from "../ui/Trouble";

interface Props {
  text: string;
  terms: "US" | "UK";
  sizes: readonly string[];
  hand: "right" | "left";
  onHand: (hand: "right" | "left") => void;
}

/** The text as makers would read it: in the terms, size and hand wanted, read back and proved before it is shown. */
export function Printed({ text, terms, sizes, hand, onHand }: Props) {
  const [into, setInto] = useState<"US" | "UK">(terms);
  const [chosen, setSize] = useState("all");
  const size = sizes.includes(chosen) ? chosen : "all";
  const body = { text, terms, into, hand, size: size === "all" ? null : size };
  const printed = useQuery({
    queryKey: ["print", body],
    queryFn: ({ signal }) => unwrap(client.POST("/api/print", { body, signal })),
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap items-center gap-3">
        <ReaderChoices
          sizes={sizes}
          size={size}
          terms={into}
          hand={hand}
          onSize={setSize}
          onTerms={setInto}
          onHand={onHand}
        />
      </div>
      {printed.error ? (
        <Trouble error={printed.error} />
      ) : (
        printed.data && (
          <pre className="sheet font-text p-4 text-sm whitespace-pre-wrap" data-testid="printed">
            {printed.data.text}
          </pre>
        )
      )}
    </div>
  );
}
