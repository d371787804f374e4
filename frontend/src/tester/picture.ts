import type { TesterPage } from "../api/schema";

/** The picture of a tester's size, as the source of an image. */
export function pictureOf(page: TesterPage): string {
  return `data:image/svg+xml,${encodeURIComponent(page.picture)}`;
}
