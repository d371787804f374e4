import { Choice } from "./Choice";
import { Select } from "./Select";

export type Terms = "US" | "UK";
export type Hand = "right" | "left";

interface Props {
  sizes: readonly string[];
  /** A size by its name, or "all". */
  size: string;
  terms: Terms;
  hand: Hand;
  onSize: (size: string) => void;
  onTerms: (terms: Terms) => void;
  onHand: (hand: Hand) => void;
}

/** For whom a text is printed: which size, in which terms, for which hand. */
export function ReaderChoices({ sizes, size, terms, hand, onSize, onTerms, onHand }: Props) {
  return (
    <>
      {sizes.length > 1 && (
        <Select label="Size" beside className="w-36" value={size} onChange={onSize}>
          <option value="all">all in one text</option>
          {sizes.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </Select>
      )}
      <Choice
        label="Terms"
        hideLabel
        value={terms}
        options={[
          ["US", "US"],
          ["UK", "UK"],
        ]}
        onChange={onTerms}
      />
      <Choice
        label="Hand"
        hideLabel
        value={hand}
        options={[
          ["right", "right-handed"],
          ["left", "left-handed"],
        ]}
        onChange={onHand}
      />
    </>
  );
}
