import { useRef, useState } from "react";
import { Link } from "react-router";
import { takeAway, takeIn } from "../api/files";
import { Button } from "../ui/Button";

/** The register as open files: taken away, taken in. */
export function WholeRegister({ came }: { came: () => unknown }) {
  const file = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState("");
  const [share, setShare] = useState<number | null>(null);
  const carry = async (
    doing: string,
    work: (progress: (done: number, of: number) => void) => Promise<string>,
  ) => {
    setTold(doing);
    setShare(0);
    try {
      setTold(await work((done, of) => setShare(of > 0 ? done / of : 0)));
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error));
    }
    setShare(null);
  };
  return (
    <section aria-label="The whole register" className="mt-6 border-t border-ruling pt-3 text-sm">
      <div className="flex flex-wrap items-center gap-2">
        <span className="max-w-xl">
          The whole register as open files: every revision of every job as text, in a zip.{" "}
          <code>entrick backup</code> copies it as it stands; a snapshot is taken every day by itself.
        </span>
        <span className="flex-1" />
        <Link className="underline" to="/office">
          Several people at this desk…
        </Link>
        <Button
          disabled={share !== null}
          onClick={() =>
            void carry("Gathering the jobs…", async (progress) => `${await takeAway(progress)} is kept.`)
          }
        >
          Take away…
        </Button>
        <Button disabled={share !== null} onClick={() => file.current?.click()}>
          Take in…
        </Button>
        <input
          ref={file}
          type="file"
          className="hidden"
          accept=".zip,application/zip"
          aria-label="Take in a register from disk"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (chosen)
              void carry("Entering the jobs…", async (progress) => {
                const what = await takeIn(chosen, progress);
                await came();
                return what;
              });
          }}
        />
      </div>
      <p role="status" className="min-h-6 pt-1">
        {told}{" "}
        {share !== null && (
          <progress className="ml-2 align-middle" value={share} max={1} aria-label="How far it is" />
        )}
      </p>
    </section>
  );
}
