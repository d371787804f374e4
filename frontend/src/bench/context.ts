import { createContext, useContext } from "react";
import type { WorkView } from "../api/schema";
import type { DesignState } from "./useDesign";

/** What is selected: a line of the text (with its bars and table row), and perhaps a number in one size. */
export interface Selection {
  line: number;
  number?: { name: string; size: number };
}

export interface BenchValue {
  design: DesignState;
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

/** The message for a field of the document (`$.sizes[2].drop_mm`), if the server found fault with it. */
export function faultAt(
  value: { design: Pick<BenchValue["design"], "faults"> },
  path: string,
): string | undefined {
  return value.design.faults.find((fault) => fault.path === path)?.message;
}
