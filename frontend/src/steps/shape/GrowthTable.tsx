import { TriangleAlert } from "lucide-react";
import type { GradingView } from "../../api/schema";
import { Sideways } from "../../ui/Sideways";

/** How the sizes grow from one to the next; uneven steps are marked. */
export function GrowthTable({ grading }: { grading: GradingView }) {
  if (grading.sizes.length < 2 || grading.growth.length === 0) return null;
  const uneven = grading.growth.filter((row) => row.uneven).length;
  return (
    <details className="sheet mt-4 px-4 py-2.5 text-sm">
      <summary className="cursor-pointer">
        <strong className="font-text">How the sizes grow:</strong>{" "}
        {uneven === 0 ? "in even steps" : `${uneven} of ${grading.growth.length} in uneven steps`}
      </summary>
      <Sideways label="How the sizes grow">
        <table className="numbers mt-2" style={{ minWidth: `${12 + 8 * grading.sizes.length}rem` }}>
          <caption className="sr-only">Each measure and number, and the step to the next size</caption>
          <thead>
            <tr>
              <td style={{ width: "12rem" }} />
              {grading.sizes.map((size) => (
                <th key={size} scope="col" className="max-w-40 align-bottom break-words">
                  {size}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {grading.growth.map((row) => (
              <tr key={row.label}>
                <th scope="row">
                  {row.label}
                  {row.uneven && (
                    <span className="text-warn flex items-center gap-1">
                      <TriangleAlert size={13} aria-hidden /> uneven
                    </span>
                  )}
                </th>
                {row.values.map((value, at) => (
                  <td key={grading.sizes[at]}>
                    <span className="font-semibold">{value}</span>
                    <span className={`block text-[13px] ${row.uneven ? "text-warn" : "text-quiet"}`}>
                      {at === 0 ? "" : row.steps[at - 1]}
                    </span>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Sideways>
    </details>
  );
}
