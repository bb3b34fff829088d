import { useEffect } from "react";
import { Link, useLocation } from "react-router";
import { Bar } from "./Bar";

/** An address there is no page for. */
export function Component() {
  const { pathname } = useLocation();
  useEffect(() => {
    document.title = "Nothing here · Entrick";
  }, []);
  return (
    <div className="flex h-full flex-col">
      <Bar title="Nothing here" />
      <main id="page" tabIndex={-1} className="m-8 bg-page p-8">
        <p>
          There is no page <code>{pathname}</code>. A job has its bench at <code>/jobs/</code> and its number,
          and its proof at <code>/proof</code> behind that.
        </p>
        <p className="pt-2">
          <Link className="act inline-block" to="/">
            To the register
          </Link>
        </p>
      </main>
    </div>
  );
}
