import type { Weighing } from "../../api/schema";
import { useChange, useDocument, useOpenDesign } from "../../bench/context";
import { useTests } from "../testers/useTests";

/** What testers said that their bags weigh, to be taken as weighings; those of another text are shown and not taken. */
export function Reported() {
  const design = useOpenDesign();
  const { weighings } = useDocument();
  const change = useChange();
  const { tests } = useTests(design.id);
  const found = (tests.data?.tests ?? []).flatMap((test) =>
    test.testers.flatMap((tester) => (tester.grams === null ? [] : [{ test, tester, grams: tester.grams }])),
  );
  const taken = (maker: string, size: string) =>
    weighings.some((one) => one.maker === maker && one.size === size);
  const open = found.filter(({ tester }) => !taken(tester.name, tester.size));
  if (open.length === 0) return null;
  return (
    <ul className="mt-2 text-sm" aria-label="Weights that testers reported">
      {open.map(({ test, tester, grams }) => (
        <li key={tester.id} className="border-line flex flex-wrap items-center gap-3 border-t py-1">
          <span className="flex-1">
            {tester.name} reported {grams} g for {tester.size}
            {!test.is_current && (
              <span className="text-quiet block text-[13px]">
                from revision {test.revision}, whose text was another: its stitches are not counted here
              </span>
            )}
          </span>
          {test.is_current && (
            <button
              type="button"
              className="button-plain"
              onClick={() => {
                const weighing: Weighing = {
                  pieces: 0,
                  of: "",
                  size: tester.size,
                  colour: "",
                  grams,
                  balls: 0,
                  maker: tester.name,
                };
                change("", (d) => ({ ...d, weighings: [...d.weighings, weighing] }));
              }}
            >
              Take {tester.name}’s weight
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
