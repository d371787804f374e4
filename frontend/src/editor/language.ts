import { StreamLanguage } from "@codemirror/language";

const HEAD =
  /^(pattern|terms|sizes|units|gauge|yarn|hook|define|number|colour|note|means|finished|section|check)(?=\s*:)/i;
const LABEL = /^(rnds?|rows?|rounds?)\b[^:]*(?=:)/i;
const SIZES = /^(sizes?|all sizes)\b.*:\s*$/i;
const GESTURE = /^(join|turn|rotate|fasten off|do not join)\b/i;
const STITCH = /^((?:ch|sl st|ss|sc|hdc|dc|tr|dtr|htr|trtr|sk|inc|dec)\b|[a-z]+\dtog\b)/i;

/** Colours for the pattern language; it is only read here, never judged: that is the server's work. */
export const patternLanguage = StreamLanguage.define<{ start: boolean }>({
  startState: () => ({ start: true }),
  token(stream, state) {
    if (stream.sol()) state.start = true;
    if (stream.eatSpace()) return null;
    if (stream.match("#")) {
      stream.skipToEnd();
      return "comment";
    }
    if (state.start) {
      state.start = false;
      if (stream.match(SIZES)) return "meta";
      if (stream.match(HEAD)) return "heading";
      if (stream.match(LABEL)) return "labelName";
    }
    if (stream.match(GESTURE)) return "keyword";
    if (stream.match(STITCH)) return "typeName";
    if (stream.match(/^\d[\d.]*/)) return "number";
    if (!stream.match(/^[A-Za-z]+/)) stream.next();
    return null;
  },
});
