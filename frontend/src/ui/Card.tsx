/** A titled sheet in the side panel. */
export function Card({
  title,
  tone,
  children,
}: {
  title: string;
  tone?: "wrong";
  children: React.ReactNode;
}) {
  return (
    <section
      className={`sheet min-w-0 p-3 text-sm [overflow-wrap:anywhere] ${tone ? "border-l-wrong border-l-3" : ""}`}
    >
      <h2 className="mb-1 text-[15px]">{title}</h2>
      {children}
    </section>
  );
}
