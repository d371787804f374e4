import { Trash2 } from "lucide-react";
import { useRef, type SyntheticEvent } from "react";
import type { Weighing, WorkView } from "../../api/schema";
import { useChange, useDocument, useFault } from "../../bench/context";
import { Select } from "../../ui/Select";
import { WeighNow } from "../../ui/WeighNow";
import { NumberInput } from "../swatch/formFields";
import { formValues } from "../swatch/formValues";
import { Reported } from "./Reported";

function saidOf(one: Weighing): string {
  const what = `${one.of && one.pieces ? `${one.pieces} of ` : ""}${one.of || "the bag"} in ${one.size}${one.colour ? `, colour ${one.colour}` : ""}`;
  const who = one.maker ? `, made by ${one.maker}` : "";
  return one.balls > 0
    ? `${what}${who}: ${one.grams} g left of ${one.balls} ${one.balls === 1 ? "ball" : "balls"}`
    : `${what}${who}: ${one.grams} g`;
}

/** What was made from the text and weighed: each weighing makes the estimate sharper. */
export function Weighings({ work }: { work: WorkView }) {
  const { weighings, yarns } = useDocument();
  const change = useChange();
  const fault = useFault();
  const form = useRef<HTMLFormElement>(null);
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { text, number } = formValues(event.currentTarget);
    const weighing: Weighing = {
      of: text("of"),
      pieces: number("pieces") ?? 0,
      size: text("size"),
      colour: text("colour"),
      grams: number("grams") ?? 0,
      balls: number("balls") ?? 0,
      maker: text("maker"),
    };
    change("", (d) => ({ ...d, weighings: [...d.weighings, weighing] }));
    event.currentTarget.reset();
  };
  return (
    <section className="sheet mt-3 p-4" aria-label="Weighed">
      <h2 className="text-lg">Weighed</h2>
      <p className="text-quiet text-sm">
        A finished bag, a piece of it, a tester’s bag, or what is left of the balls: each tells of this yarn.
      </p>
      <ul className="mt-2 text-sm">
        {weighings.map((one, at) => (
          <li key={at} className="border-line flex items-center gap-3 border-t py-1">
            <span className="flex-1">
              {saidOf(one)}
              {["grams", "size", "of", "pieces"].map(
                (key) =>
                  fault(`$.weighings[${at}].${key}`) && (
                    <span key={key} className="text-wrong block text-[13px]">
                      {fault(`$.weighings[${at}].${key}`)}
                    </span>
                  ),
              )}
            </span>
            <button
              type="button"
              className="button-bare"
              aria-label={`Remove: ${saidOf(one)}`}
              onClick={() =>
                change("", (d) => ({ ...d, weighings: d.weighings.filter((_, index) => index !== at) }))
              }
            >
              <Trash2 size={15} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <Reported />
      <form ref={form} className="mt-2 grid grid-cols-2 items-end gap-3 sm:grid-cols-7" onSubmit={submit}>
        <Select label="What" name="of" className="col-span-2">
          <option value="">the whole bag</option>
          {work.outline.sections.map((section) => (
            <option key={section.line} value={section.title}>
              {section.title}
            </option>
          ))}
        </Select>
        {work.outline.sections.some((section) => section.made > 1) && (
          <NumberInput name="pieces" label="Of several: how many" optional />
        )}
        <Select label="Size" name="size">
          {work.outline.sizes.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </Select>
        {yarns.length > 1 && (
          <Select label="Colour" name="colour">
            <option value="">all</option>
            {yarns.map((yarn) => (
              <option key={yarn.colour} value={yarn.colour}>
                {yarn.colour || yarn.name}
              </option>
            ))}
          </Select>
        )}
        <NumberInput name="grams" label="Grams" />
        <NumberInput name="balls" label="Left of … balls" optional />
        <label>
          <span className="text-quiet text-[13px]">Maker</span>
          <input name="maker" className="field" maxLength={80} placeholder="you" />
        </label>
        <span className="col-span-2 flex items-center gap-2 sm:col-span-7">
          <button type="submit" className="button">
            Add the weighing
          </button>
          <WeighNow
            what="it"
            onGrams={(grams) => {
              const field = form.current?.elements.namedItem("grams");
              if (field instanceof HTMLInputElement) field.value = String(grams);
            }}
          />
        </span>
      </form>
    </section>
  );
}
