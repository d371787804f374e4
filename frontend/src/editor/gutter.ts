import { lintGutter } from "@codemirror/lint";
import { EditorView } from "@codemirror/view";

const drawn = (inner: string) =>
  `url("data:image/svg+xml,${encodeURIComponent(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" fill="none" stroke="black" stroke-width="2.4" stroke-linecap="round">${inner}</svg>`,
  )}")`;
// The marks of the proof: refuted, and worked but not checked.
const REFUTED = drawn('<circle cx="12" cy="12" r="9.5"/><path d="M9 9l6 6M15 9l-6 6"/>');
const OPEN = drawn('<circle cx="12" cy="12" r="9.5" stroke-dasharray="4 3.5"/>');

const shape = (mask: string, colour: string) => ({
  content: '""',
  display: "block",
  width: "14px",
  height: "14px",
  margin: "3px 0 0 1px",
  backgroundColor: colour,
  maskImage: mask,
  maskSize: "contain",
});

/** What is found in a line, marked beside it as the proof marks it. */
export const gutter = [
  lintGutter(),
  EditorView.theme({
    ".cm-lint-marker-error": shape(REFUTED, "var(--wrong)"),
    ".cm-lint-marker-warning": shape(OPEN, "var(--warn)"),
  }),
];
