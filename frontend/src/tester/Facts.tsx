import type { TesterPage } from "../api/schema";
import { pictureOf } from "./picture";
import { Dialog } from "../ui/Dialog";

export function Facts({ page, open, onClose }: { page: TesterPage; open: boolean; onClose: () => void }) {
  const lists = [
    ["Materials", page.materials],
    ["Gauge", [page.gauge]],
    ["Abbreviations", page.abbreviations.map((pair) => `${pair.name}: ${pair.text}`)],
    ["Notes", page.notes],
    ["Please mind", page.cautions],
  ] as const;
  return (
    <Dialog title={page.title} open={open} onClose={onClose}>
      {page.picture && <img src={pictureOf(page)} alt="" className="mb-3 h-32 max-w-full" />}
      {lists.map(([title, items]) => (
        <section key={title} className="mb-3">
          <h3>{title}</h3>
          <ul className="list-disc pl-5">
            {items.map((item) => (
              <li key={item}>{item}</li>
            ))}
          </ul>
        </section>
      ))}
      <button type="button" className="button" onClick={onClose}>
        Back to the work
      </button>
    </Dialog>
  );
}
