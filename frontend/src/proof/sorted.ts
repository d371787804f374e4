import type { FindingView } from "../api/schema";

/** What has to be mended, and what only deserves a word; what is asked as a question is not said twice. */
export function sorted(findings: readonly FindingView[]) {
  const errors = findings.filter((finding) => finding.severity === "error");
  const others = findings.filter(
    (finding) => finding.severity !== "error" && finding.code !== "chain-unsaid",
  );
  return { errors, others };
}
