import { createContext, useContext } from "react";
import { useStore } from "zustand";
import type { Design, WorkView } from "../api/schema";
import type { DesignState, DesignStore } from "./store";

/** What is selected: a line of the text (with its bars and table row), and perhaps a number in one size. */
export interface Selection {
  line: number;
  number?: { name: string; size: number };
}

export interface BenchValue {
  store: DesignStore;
  /** The newest answer of the server; null until the first one has come. */
  work: WorkView | null;
  /** Why the newest document could not be worked; the answer before is still shown. */
  workError: Error | null;
  /** Asks for the work once more. */
  workAgain: () => void;
}

export interface SelectionValue {
  selection: Selection | null;
  select: (selection: Selection | null) => void;
}

export const BenchContext = createContext<BenchValue | null>(null);
export const SelectionContext = createContext<SelectionValue>({ selection: null, select: () => undefined });
/** Whether the work that is shown is of an older document: the newest is being worked, or cannot be. */
export const StaleContext = createContext(false);

export function useBench(): BenchValue {
  const value = useContext(BenchContext);
  if (!value) throw new Error("useBench is used outside the bench");
  return value;
}

export const useSelection = () => useContext(SelectionContext);
export const useStale = () => useContext(StaleContext);

/** The part of the open design that is asked for; what asks is drawn again only when this part changes. */
export function useDesign<T>(part: (state: DesignState) => T): T {
  return useStore(useBench().store, part);
}

/** All of the open design; what asks is drawn again at each change. */
export function useOpenDesign(): DesignState {
  return useStore(useBench().store);
}

export function useDocument(): Design {
  return useDesign((state) => state.document);
}

/** Changes the document; the same function as long as the design is open. */
export function useChange(): DesignState["change"] {
  return useBench().store.getState().change;
}

/** The message for a field of the document (`$.sizes[2].name`), if the server found fault with it. */
export function useFault(): (path: string) => string | undefined {
  const faults = useDesign((state) => state.faults);
  return (path) => faults.find((fault) => fault.path === path)?.message;
}
