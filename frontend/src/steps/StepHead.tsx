import { ArrowRight } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";

/** Title of a step, what it is for in one line, and the way to the next stone. */
export function StepHead({
  title,
  children,
  next,
}: {
  title: string;
  children: ReactNode;
  next?: { to: string; title: string };
}) {
  return (
    <div className="mb-3 flex items-start justify-between gap-4">
      <div>
        <h1 className="text-[22px] leading-tight">{title}</h1>
        <p className="text-quiet text-sm">{children}</p>
      </div>
      {next && (
        <Link to={`../${next.to}`} className="button-plain shrink-0">
          {next.title} <ArrowRight size={16} aria-hidden />
        </Link>
      )}
    </div>
  );
}
