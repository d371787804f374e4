import type { ReactNode } from "react";
import { useBench } from "../bench/context";
import { sizeNames } from "../bench/design";
import { Sideways } from "../ui/Sideways";

/** The table in which sizes stand side by side. Children are its rows. */
export function SizeColumns({ caption, children }: { caption: string; children: ReactNode }) {
  const { work } = useBench();
  const sizes = sizeNames(work);
  return (
    <Sideways label="The sizes side by side">
      <table
        className="numbers size-columns"
        style={{ minWidth: `${9 + (sizes.length > 5 ? 4.7 : 6.2) * sizes.length}rem` }}
      >
        <caption className="sr-only">{caption}</caption>
        <colgroup>
          <col style={{ width: "9.5rem" }} />
          {sizes.map((_, index) => (
            <col key={index} />
          ))}
        </colgroup>
        <thead>
          <tr>
            <td />
            {sizes.map((name, index) => (
              <th
                key={index}
                scope="col"
                className="px-1 pb-1 align-bottom text-[15px] font-semibold break-words"
              >
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </Sideways>
  );
}
