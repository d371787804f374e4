import { createContext, useContext } from "react";
import type { TextDesign, ToteDesign, WorkView } from "../api/schema";
import type { Design } from "./design";
import type { DesignState } from "./useDesign";

/** What is selected: a line of the text (with its bars and table row), and perhaps a number in one size. */
export interface Selection {
  line: number;
  number?: { name: string; size: number };
}

export interface BenchValue<D extends Design = Design> {
  design: DesignState<D>;
  /** The newest answer of the server; null until the first one has come. */
  work: WorkView | null;
  /** Why the newest document could not be worked; the answer before is still shown. */
  workError: unknown;
  /** Whether the answer is of an older document: the newest is being worked, or cannot be. */
  workStale: boolean;
  /** Asks for the work once more. */
  workAgain: () => void;
  selection: Selection | null;
  select: (selection: Selection | null) => void;
}

export const BenchContext = createContext<BenchValue | null>(null);

export function useBench(): BenchValue {
  const value = useContext(BenchContext);
  if (!value) throw new Error("useBench is used outside the bench");
  return value;
}

/** The bench of a tote by fields; its steps are shown for no other design. */
export function useFields(): BenchValue<ToteDesign> {
  const bench = useBench();
  if (bench.design.document.version !== 1) throw new Error("a step of a tote is shown for another design");
  return bench as unknown as BenchValue<ToteDesign>;
}

/** The bench of a design that is a text. */
export function useText(): BenchValue<TextDesign> {
  const bench = useBench();
  if (bench.design.document.version !== 2) throw new Error("a step of a text is shown for another design");
  return bench as unknown as BenchValue<TextDesign>;
}

/** The message for a field of the document (`$.sizes[2].drop_mm`), if the server found fault with it. */
export function faultAt(
  value: { design: Pick<BenchValue["design"], "faults"> },
  path: string,
): string | undefined {
  return value.design.faults.find((fault) => fault.path === path)?.message;
}
