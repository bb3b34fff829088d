import { useEffect, useRef } from "react";
import type { Completion } from "../api/client";

interface Props {
  id: string;
  offers: readonly Completion[];
  /** Which one the keys have come to; -1 for none. */
  at: number;
  take: (offer: Completion) => void;
}

/** What may follow in the row being written. */
export function Offers({ id, offers, at, take }: Props) {
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    const page = list.current?.closest(".page");
    if (!list.current || !page) return;
    const below = list.current.getBoundingClientRect().bottom - page.getBoundingClientRect().bottom;
    if (below > 0) page.scrollTop += below + 8;
  }, [offers]);
  return (
    <ul
      ref={list}
      id={id}
      role="listbox"
      aria-label="What may follow"
      className="slip mt-1 ml-10 max-h-56 overflow-auto"
    >
      {offers.map((offer, i) => (
        <li
          key={offer.row}
          id={`${id}-${i}`}
          role="option"
          aria-selected={i === at}
          className={`flex cursor-pointer gap-3 px-2 py-1 ${i === at ? "bg-wash" : ""}`}
          onMouseDown={(event) => {
            event.preventDefault();
            take(offer);
          }}
        >
          <strong className="w-28 shrink-0">{offer.adds}</strong>
          <span className="truncate text-pencil">{offer.about}</span>
        </li>
      ))}
    </ul>
  );
}
