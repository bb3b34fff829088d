import { type ReactNode, useEffect, useEffectEvent, useId, useLayoutEffect, useRef, useState } from "react";
import type { Completion, KindOut, Work } from "../api/client";
import { look, useLooks } from "../state/looks";
import { FromBrief } from "./FromBrief";
import { KindList } from "./KindList";
import { Mistake } from "./Mistake";
import { Offers } from "./Offers";
import { PIECES, REFERENCE, useRow } from "./useRow";
import { Button } from "../ui/Button";

interface Props {
  work: Work;
  kinds: KindOut[];
  /** What else can be done from here, beside the buttons of the line. */
  more?: ReactNode;
}

/** Begin what was asked for on another page, once it is known here. */
function useBegun(kind: KindOut | undefined, begin: (kind: KindOut) => void) {
  const now = useEffectEvent(begin);
  useEffect(() => {
    if (!kind) return;
    look({ begin: null });
    now(kind);
  }, [kind]);
}

/** The empty line at the end: a sentence with completion, the list of kinds, or pieces clicked on the sheet. */
export function NewLine({ work, kinds, more }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const line = useRow(work);
  useLayoutEffect(() => {
    if (!line.selected) return;
    input.current?.focus();
    input.current?.setSelectionRange(...line.selected);
  }, [line.selected]);
  const pick = useLooks((looks) => looks.pick);
  const [at, setAt] = useState(-1);
  const list = useId();
  const offers = line.open ? line.offers : [];
  const lined = kinds.find((kind) => kind.by_clicking && kind.lines_in === "outline");

  const take = (offer: Completion) => {
    setAt(-1);
    line.take(offer);
  };
  const begin = (kind: KindOut) => void line.begin(kind);
  const wanted = useLooks((looks) => looks.begin);
  useBegun(
    kinds.find((kind) => kind.name === wanted),
    begin,
  );
  const keys = (event: React.KeyboardEvent) => {
    const offer = offers[at];
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      if (!line.open) line.setOpen(true);
      else setAt(Math.max(-1, Math.min(offers.length - 1, at + (event.key === "ArrowDown" ? 1 : -1))));
    } else if ((event.key === "Enter" || event.key === "Tab") && offer) {
      event.preventDefault();
      take(offer);
    } else if (event.key === "Tab" && !event.shiftKey && line.isTyped) {
      event.preventDefault();
      setAt(-1);
      void line.takeFirst();
    } else if (event.key === "Tab" && !event.shiftKey && line.toBlank(input.current?.selectionEnd ?? 0)) {
      event.preventDefault();
    } else if (event.key === "Escape") {
      line.setOpen(false);
      look({ pick: null });
    }
  };

  return (
    <div className="pb-10">
      <form
        className="flex items-baseline gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void line.putDown();
        }}
      >
        <span className="w-8 shrink-0 text-right text-pencil" aria-hidden="true">
          {work.entries.filter((entry) => !entry.comment).length + 1}
        </span>
        <input
          ref={input}
          id="new-line"
          className="field min-w-0 flex-1"
          role="combobox"
          aria-label="The next statement"
          aria-expanded={offers.length > 0}
          aria-controls={list}
          aria-autocomplete="list"
          aria-activedescendant={offers[at] ? `${list}-${at}` : undefined}
          placeholder="next: a name = a kind, its clauses   (n)"
          value={line.row}
          spellCheck={false}
          autoComplete="off"
          onChange={(event) => {
            setAt(-1);
            const { value, selectionStart, selectionEnd } = event.target;
            line.write(value, [selectionStart ?? value.length, selectionEnd ?? value.length]);
          }}
          onSelect={(event) => {
            const { selectionStart, selectionEnd } = event.currentTarget;
            line.moveTo([selectionStart ?? 0, selectionEnd ?? 0]);
          }}
          onFocus={() => line.row.trim() && line.setOpen(true)}
          onBlur={() => line.setOpen(false)}
          onKeyDown={keys}
        />
        {line.row.trim() && (
          <Button main onMouseDown={(event) => event.preventDefault()}>
            Write down
          </Button>
        )}
      </form>
      {line.blank && (
        <p role="status" className="ml-10 text-sm text-pencil">
          here: {line.blank}
        </p>
      )}
      {offers.length > 0 && <Offers id={list} offers={offers} at={at} take={take} />}
      {/* A press keeps the line in focus: were the list to close, what is pressed would move away. */}
      <div
        role="toolbar"
        aria-label="Ways to write it"
        className="mt-1 ml-10 flex flex-wrap gap-1"
        onMouseDown={(event) => event.preventDefault()}
      >
        <KindList kinds={kinds} choose={begin} />
        {lined && (
          <Button type="button" onClick={() => begin(lined)} aria-pressed={pick?.wanted === PIECES}>
            Line in by clicking
          </Button>
        )}
        {kinds.some((kind) => kind.follows) && <FromBrief take={line.start} />}
        {more}
        {line.row.trim() && (
          <Button type="button" onClick={line.pickOne} aria-pressed={pick?.wanted === REFERENCE}>
            Pick on the sheet
          </Button>
        )}
      </div>
      {line.doubt && (
        <div className="ml-10">
          <Mistake message={line.doubt} line={0} />
        </div>
      )}
    </div>
  );
}
