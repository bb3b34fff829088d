import type { ReactNode } from "react";
import { Link } from "react-router";

/** The strip along the top of every view. */
export function Header({ children }: { children?: ReactNode }) {
  return (
    <header className="flex min-h-11 shrink-0 items-center gap-4 bg-table-dark px-4 text-page">
      <Link to="/" className="font-lettering text-xl tracking-wide">
        Entrick
      </Link>
      {children}
    </header>
  );
}
