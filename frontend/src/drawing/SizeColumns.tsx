import type { ReactNode } from "react";
import { useBench } from "../bench/context";
import { sizeNames } from "../bench/design";
import { Silhouette } from "./Silhouette";
import { frameOf } from "./scale";
import { Sideways } from "../ui/Sideways";

/** The table in which sizes stand side by side, each bag over its own column. Children are more rows. */
export function SizeColumns({
  caption,
  head,
  drawn = true,
  children,
}: {
  caption: string;
  /** What stands in a size's head; its name when not given. */
  head?: (index: number) => ReactNode;
  drawn?: boolean;
  children: ReactNode;
}) {
  const { design, work, selection, select } = useBench();
  const sizes = sizeNames(design.document, work);
  const fields = design.document.version === 1 ? design.document.sizes : null;
  const frame = work && fields ? frameOf(work) : null;
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
          {drawn && frame && work && fields && (
            <tr>
              <td className="text-quiet text-left align-bottom text-[12.5px]">
                Dotted: the wanted width and height
              </td>
              {fields.map((size, index) => {
                const view = work.sizes[index];
                return (
                  <td key={index} className="align-bottom">
                    {view && (
                      <Silhouette
                        size={view}
                        index={index}
                        count={sizes.length}
                        frame={frame}
                        line={selection?.line ?? null}
                        wanted={size}
                        onSelect={(line) => select({ line })}
                      />
                    )}
                  </td>
                );
              })}
            </tr>
          )}
          <tr>
            <td />
            {sizes.map((name, index) => (
              <th
                key={index}
                scope="col"
                className="max-w-0 truncate px-1 pb-1 text-[15px] font-semibold"
                title={name}
              >
                {head ? head(index) : name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </Sideways>
  );
}
