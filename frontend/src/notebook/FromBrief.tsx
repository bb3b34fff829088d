import { Popover } from "radix-ui";
import { useState } from "react";
import { useBrief } from "../state/server";
import { Button } from "../ui/Button";
import { Understood } from "../worksheet/Understood";

/** What a follower does, in the words of the brief, before there is anything that has one. */
export function FromBrief({ take }: { take: (row: string) => void }) {
  const [open, setOpen] = useState(false);
  const [brief, setBrief] = useState("");
  const { read, error, statement } = useBrief(0, brief);
  const use = () => {
    setOpen(false);
    setBrief("");
    take(statement);
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
          <Understood read={read} error={error} />
          <Button main className="mt-2" disabled={!statement} onClick={use}>
            Write it out
          </Button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
