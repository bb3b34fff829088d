import type { ReactNode } from "react";
import { Link } from "react-router";

/** The strip along the top of every view. */
export function Header({ children }: { children?: ReactNode }) {
  return (
    <header className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 bg-table-dark px-4 py-1 text-page stacked:gap-x-1.5 stacked:px-2">
      <Link to="/" className="font-lettering text-xl tracking-wide">
        Entrick
      </Link>
      {children}
    </header>
  );
}
