import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";
import { inWords, type JobIn, listTopics, makePart, nextNumber } from "../api/client";
import { Button } from "../ui/Button";

/** A job is begun with its heading: what is called nothing is found by nobody. */
export function NewJob({ enter }: { enter: (job: JobIn) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="act">New job…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          aria-label="A new job"
          className="slip z-10 w-80 max-w-[94vw] p-4 shadow-md"
        >
          <Heading enter={enter} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Heading({ enter }: { enter: (job: JobIn) => void }) {
  const [title, setTitle] = useState("");
  const [drawing, setDrawing] = useState<string | null>(null);
  const [unit, setUnit] = useState<NonNullable<JobIn["unit"]>>("mm");
  const next = useQuery({ queryKey: ["jobs", "next number"], queryFn: () => nextNumber(), gcTime: 0 });
  const number = drawing ?? next.data?.drawing ?? "";
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        enter({ title: title.trim(), drawing: number.trim(), unit });
      }}
    >
      <label className="block">
        Title
        <input
          className="field w-full"
          value={title}
          maxLength={200}
          placeholder="what the part is"
          autoComplete="off"
          onChange={(event) => setTitle(event.target.value)}
        />
      </label>
      <label className="block">
        Drawing number
        <input
          className="field w-full"
          value={number}
          maxLength={60}
          pattern="[A-Za-z0-9][\w .\/\-]*"
          title="letters and figures, with . / - or blanks between them"
          autoComplete="off"
          onChange={(event) => setDrawing(event.target.value)}
        />
      </label>
      <label className="flex items-baseline gap-2">
        Units
        <select
          className="field"
          value={unit}
          onChange={(event) => setUnit(event.target.value as typeof unit)}
        >
          <option value="mm">millimetres</option>
          <option value="in">inches</option>
        </select>
      </label>
      <Button main>Begin</Button>
      <Exercise enter={enter} />
    </form>
  );
}

/** Or a part to practise on: of a topic, with sizes nobody has had before. */
function Exercise({ enter }: { enter: (job: JobIn) => void }) {
  const topics = useQuery({ queryKey: ["topics"], queryFn: () => listTopics(), staleTime: Infinity });
  const [topic, setTopic] = useState("");
  const [told, setTold] = useState("");
  const make = async () => {
    try {
      const seed = crypto.getRandomValues(new Uint16Array(1))[0]!;
      enter({ text: (await makePart({ body: { topic, seed } })).text });
    } catch (problem) {
      setTold(inWords(problem));
    }
  };
  return (
    <div className="border-t border-ruling pt-2">
      <label className="flex items-baseline gap-2">
        or an exercise
        <select className="field min-w-0" value={topic} onChange={(event) => setTopic(event.target.value)}>
          <option value="">choose…</option>
          {topics.data?.topics.map((each) => (
            <option key={each.key} value={each.key} title={each.told}>
              {each.title}
            </option>
          ))}
        </select>
        <Button type="button" disabled={!topic} onClick={() => void make()}>
          Draw one by lot
        </Button>
      </label>
      <p role="status">{told}</p>
    </div>
  );
}
