import { Popover } from "radix-ui";
import { useState } from "react";
import { brief as readBrief, Problem, type Work } from "../api/client";
import { Button } from "../ui/Button";

/** What a follower does, in the words of the brief, before there is anything that has one. */
export function FromBrief({ work, take }: { work: Work; take: (row: string) => void }) {
  const [open, setOpen] = useState(false);
  const [brief, setBrief] = useState("");
  const [told, setTold] = useState<readonly string[]>([]);
  const read = async () => {
    try {
      const found = await readBrief({ body: { text: work.text, line: 0, brief } });
      setTold(found.misread.map((row) => `Part ${row.row}: ${row.message}.`));
      if (!found.statement) return;
      setOpen(false);
      setBrief("");
      take(found.statement);
    } catch (fault) {
      setTold([fault instanceof Problem ? fault.detail : String(fault)]);
    }
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="act">From a brief…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          collisionPadding={8}
          className="slip z-10 w-[26rem] max-w-[94vw] p-3 shadow-md"
          aria-label="What the follower does"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <label className="block">
            What the follower of a cam does, as the brief says it, such as “rises 24 mm in 90°, dwells 60°,
            falls in 120°, dwells”; or stations as rows of angle and lift
            <textarea
              className="field mt-1 block h-24 w-full"
              value={brief}
              spellCheck={false}
              onChange={(event) => setBrief(event.target.value)}
            />
          </label>
          <Button main className="mt-2" disabled={!brief.trim()} onClick={() => void read()}>
            Write it out
          </Button>
          {told.map((row) => (
            <p key={row} role="alert" className="pt-1 text-base text-accent">
              ✗ {row}
            </p>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
