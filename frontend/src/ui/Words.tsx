import { Popover } from "radix-ui";
import { useVocabulary } from "../state/server";

const MOST = 5;

/** The words of the trade that stand in some sentences, each explained at a touch. */
export function Words({ said }: { said: readonly string[] }) {
  const data = useVocabulary();
  const text = ` ${said.join(" ").toLowerCase()}`;
  const found = Object.entries(data?.words ?? {}).filter(([word]) => text.includes(` ${word}`));
  if (found.length === 0) return null;
  return (
    <p className="text-base text-pencil" aria-label="Words explained">
      Words:{" "}
      {found.slice(0, MOST).map(([word, meaning]) => (
        <Popover.Root key={word}>
          <Popover.Trigger className="mr-2 min-h-7 cursor-help underline decoration-dotted">
            {word}
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              side="top"
              collisionPadding={8}
              className="slip z-10 max-w-72 px-3 py-2 text-ink shadow-md"
            >
              <strong>{word}</strong>: {meaning}
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      ))}
    </p>
  );
}
