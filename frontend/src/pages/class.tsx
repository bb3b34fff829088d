import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { ClassSheets } from "../class/ClassSheets";
import { MakeSet } from "../class/MakeSet";
import { Record } from "../class/Record";
import { OpenSet } from "../class/OpenSet";
import { Sets } from "../class/Sets";
import { Bar } from "../views/Bar";

/** For an instructor: sets of the register with their papers, keys and marks; finished sheets looked at. */
export function Component() {
  useEffect(() => {
    document.title = "For a class · Entrick";
  }, []);
  const [said, say] = useSearchParams();
  const set = Number(said.get("set")) || 0;
  const choose = (id: number) => say(id > 0 ? { set: String(id) } : {});
  const [told, setTold] = useState("");
  return (
    <div className="flex h-full flex-col">
      <Bar title="For a class" />
      <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto p-4 tight:p-1">
        <p role="status" data-testid="class-told" className="pb-2 empty:hidden">
          {told}
        </p>
        <div className="grid grid-cols-[minmax(0,1fr)] gap-4 min-[1000px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <div className="space-y-6 bg-page p-6 tight:p-3">
            <Sets open={set} choose={choose} told={setTold} />
            {set > 0 && <OpenSet key={set} id={set} told={setTold} />}
            <MakeSet made={choose} told={setTold} />
          </div>
          <div className="space-y-6 bg-page p-6 tight:p-3">
            <Record />
            <ClassSheets told={setTold} />
          </div>
        </div>
      </main>
    </div>
  );
}
