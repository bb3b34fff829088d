import { useRouteError } from "react-router";
import { Bar } from "./Bar";
import { Button } from "../ui/Button";

/** What is shown when a page falls over: the work is kept, and the way back. */
export function Fault() {
  const error = useRouteError();
  return (
    <div className="flex h-full flex-col">
      <Bar />
      <main id="page" tabIndex={-1} role="alert" className="m-8 bg-page p-8">
        <h1 className="text-lg font-semibold">This page has a fault</h1>
        <p>What was on the bench is kept in this browser. Load the page again to go on.</p>
        <p className="py-2 text-pencil">{error instanceof Error ? error.message : String(error)}</p>
        <Button onClick={() => location.reload()}>Load the page again</Button>
      </main>
    </div>
  );
}
