/** What was typed into a form: words, and numbers with a point or a comma; null for an empty field. */
export function formValues(form: HTMLFormElement) {
  const data = new FormData(form);
  const text = (name: string) => {
    const value = data.get(name);
    return typeof value === "string" ? value.trim() : "";
  };
  const number = (name: string) => (text(name) === "" ? null : Number(text(name).replace(",", ".")));
  return { text, number };
}
