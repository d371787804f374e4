import { ArrowLeft, ArrowRight, Copy, Plus, Trash2 } from "lucide-react";
import type { Size, ToteDesign } from "../../api/schema";
import { faultAt, useFields } from "../../bench/context";
import { SizeColumns } from "../../drawing/SizeColumns";
import { Help } from "../../ui/Help";
import { NumberField } from "../../ui/NumberField";
import { StepHead } from "../StepHead";
import { perUnit } from "../units";

const MOST = 10;

type Measure = "width" | "height" | "depth" | "drop";

const ROWS: readonly { key: Measure; label: string; help: string }[] = [
  { key: "width", label: "Width", help: "Across the bag at the wall, lying flat." },
  { key: "height", label: "Height", help: "From the edge of the base to the top edge, handles left out." },
  { key: "depth", label: "Base depth", help: "How far the bag is from front to back when it stands." },
  {
    key: "drop",
    label: "Handle drop",
    help: "From the foot of the handle opening to the handle’s underside, with a load in the bag.",
  },
];

const FREE = {
  side: null,
  base_rounds: null,
  extra: null,
  around: null,
  wall_rounds: null,
  handle_skip: null,
  handle_chain: null,
};

function freshName(names: readonly string[], wanted: string): string {
  const taken = new Set(names.map((name) => name.toLowerCase()));
  if (!taken.has(wanted.toLowerCase())) return wanted;
  for (let number = 2; ; number++) {
    if (!taken.has(`${wanted} ${number}`.toLowerCase())) return `${wanted} ${number}`;
  }
}

// Names in the order of growing sizes; a row of them goes on as it began.
const NEXT_NAMES = [
  ["XS", "S", "M", "L", "XL", "XXL", "3XL", "4XL", "5XL", "6XL"],
  ["Small", "Medium", "Large", "Extra large"],
];

/** The name that comes after the last one: "XL" after "L", "5" after "4". */
function nextName(names: readonly string[]): string {
  const last = names.at(-1) ?? "";
  if (/^\d{1,3}$/.test(last)) return String(Number(last) + 1);
  for (const row of NEXT_NAMES) {
    const at = row.findIndex((name) => name.toLowerCase() === last.toLowerCase());
    const next = row[at + 1];
    if (at >= 0 && next) return next;
  }
  return NEXT_NAMES[1]?.find((next) => !names.includes(next)) ?? "Another size";
}

/** A next larger size: each measure a step further, as the step before was (or a sixth more). */
function larger(sizes: readonly Size[]): Size {
  const last = sizes.at(-1);
  if (!last) throw new Error("a design has at least one size");
  const before = sizes.at(-2);
  const grow = (key: "width_mm" | "height_mm" | "depth_mm" | "drop_mm") =>
    Math.round(Math.max(last[key], before ? 2 * last[key] - before[key] : (last[key] * 7) / 6) / 5) * 5;
  const names = sizes.map((size) => size.name);
  return {
    ...last,
    name: freshName(names, nextName(names)),
    width_mm: grow("width_mm"),
    height_mm: grow("height_mm"),
    depth_mm: grow("depth_mm"),
    drop_mm: grow("drop_mm"),
    locks: FREE,
  };
}

function Head({ index }: { index: number }) {
  const bench = useFields();
  const { design } = bench;
  const { sizes } = design.document;
  const size = sizes[index];
  if (!size) return null;
  const change = (change: (sizes: Size[]) => Size[]) =>
    design.change("", (d) => ({ ...d, text: null, sizes: change([...d.sizes]) }));
  const move = (by: number) =>
    change((all) => {
      const [moved] = all.splice(index, 1);
      if (moved) all.splice(index + by, 0, moved);
      return all;
    });
  const fault = faultAt(bench, `$.sizes[${index}].name`);
  // A text that was edited by hand is never replaced by one that is written anew.
  const held = bench.work?.edited ?? false;
  return (
    <div>
      <input
        className="field text-center font-semibold"
        aria-label={`Name of size ${index + 1}`}
        aria-invalid={fault !== undefined}
        title={fault ?? size.name}
        value={size.name}
        onChange={(event) =>
          design.change(`size.${index}.name`, (d) => ({
            ...d,
            sizes: d.sizes.map((s, i) => (i === index ? { ...s, name: event.target.value } : s)),
          }))
        }
      />
      <div className="flex justify-center">
        <button
          type="button"
          className="button-bare px-1"
          aria-label={`Move ${size.name} left`}
          disabled={held || index === 0}
          onClick={() => move(-1)}
        >
          <ArrowLeft size={14} aria-hidden />
        </button>
        <button
          type="button"
          className="button-bare px-1"
          aria-label={`Copy ${size.name}`}
          disabled={held || sizes.length >= MOST}
          onClick={() =>
            change((all) => {
              const names = all.map((s) => s.name);
              all.splice(index + 1, 0, { ...size, name: freshName(names, `${size.name} copy`) });
              return all;
            })
          }
        >
          <Copy size={14} aria-hidden />
        </button>
        <button
          type="button"
          className="button-bare px-1"
          aria-label={`Delete ${size.name}`}
          disabled={held || sizes.length === 1}
          onClick={() => change((all) => all.filter((_, i) => i !== index))}
        >
          <Trash2 size={14} aria-hidden />
        </button>
        <button
          type="button"
          className="button-bare px-1"
          aria-label={`Move ${size.name} right`}
          disabled={held || index === sizes.length - 1}
          onClick={() => move(1)}
        >
          <ArrowRight size={14} aria-hidden />
        </button>
      </div>
    </div>
  );
}

function setSize(d: ToteDesign, index: number, change: Partial<Size>): ToteDesign {
  return { ...d, sizes: d.sizes.map((size, i) => (i === index ? { ...size, ...change } : size)) };
}

function Cell({ index, row }: { index: number; row: (typeof ROWS)[number] }) {
  const bench = useFields();
  const { design, work } = bench;
  const size = design.document.sizes[index];
  if (!size) return null;
  const key = `${row.key}_mm` as const;
  const tolerance = `${row.key}_tolerance_mm` as const;
  const per = perUnit(design.document);
  const measure = work?.sizes[index]?.measures.find((m) => m.name === row.key);
  return (
    <td className="align-top">
      <div className="flex items-center justify-center gap-1">
        <NumberField
          className="w-16"
          label={`${row.label} of ${size.name}`}
          hideLabel
          per={per}
          value={size[key]}
          fault={faultAt(bench, `$.sizes[${index}].${key}`)}
          onChange={(value) =>
            design.change(`size.${index}.${key}`, (d) => setSize(d, index, { [key]: value }))
          }
        />
        <span className="text-quiet text-sm">±</span>
        <NumberField
          className="w-11"
          label={`Tolerance of the ${row.label.toLowerCase()} of ${size.name}`}
          hideLabel
          per={per}
          value={size[tolerance]}
          fault={faultAt(bench, `$.sizes[${index}].${tolerance}`)}
          onChange={(value) =>
            design.change(`size.${index}.${tolerance}`, (d) => setSize(d, index, { [tolerance]: value }))
          }
        />
      </div>
      {measure && (
        <p
          className={`mt-0.5 text-[13px] ${measure.within ? "text-quiet" : "text-wrong font-semibold"}`}
          data-testid={`result-${row.key}-${index}`}
        >
          {measure.result} ({measure.error.replace(/ (cm|in)$/, "")})
        </p>
      )}
    </td>
  );
}

export function SizesStep() {
  const { design, work } = useFields();
  const sizes = design.document.sizes;
  const faults = design.faults.filter((fault) => fault.path.startsWith("$.sizes"));
  return (
    <>
      <StepHead title="Sizes" next={{ to: "shape", title: "Base, wall, handles" }}>
        What each size shall measure, and how far off it may be. Below each field: what it comes to, and the
        difference.
      </StepHead>
      <SizeColumns
        caption="Targets of each size with what they come to"
        head={(index) => <Head index={index} />}
      >
        {ROWS.map((row) => (
          <tr key={row.key}>
            <th scope="row">
              {row.label} ({design.document.units}) <Help term={row.label}>{row.help}</Help>
            </th>
            {sizes.map((_, index) => (
              <Cell key={index} index={index} row={row} />
            ))}
          </tr>
        ))}
        <tr>
          <th scope="row">Stitches around</th>
          {sizes.map((_, index) => (
            <td key={index} className="font-semibold">
              {work?.sizes[index]?.counts["around"] ?? ""}
            </td>
          ))}
        </tr>
      </SizeColumns>
      {faults.length > 0 && (
        <ul role="alert" className="text-wrong mt-2 text-sm">
          {faults.map((fault) => (
            <li key={fault.path}>
              {fault.path
                .replace("$.sizes", "Size ")
                .replace(/\[(\d+)\]/, (_, n: string) => `${Number(n) + 1}`)}
              : {fault.message}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className="button"
          disabled={(work?.edited ?? false) || sizes.length >= MOST}
          onClick={() =>
            design.change("", (d) => ({ ...d, text: null, sizes: [...d.sizes, larger(d.sizes)] }))
          }
        >
          <Plus size={16} aria-hidden /> Add a larger size
        </button>
        {sizes.length >= MOST && <p className="text-quiet text-sm">A design has at most {MOST} sizes.</p>}
        {work?.edited && (
          <p className="text-warn text-sm">
            The text was edited by hand, and is not replaced: sizes are added, copied, moved and deleted here
            only when you have it written anew in Words. New targets change the numbers, and not the text.
          </p>
        )}
      </div>
    </>
  );
}
