import { Fragment } from "react";
import { NavLink } from "react-router";
import type { LeafOut } from "../api/client";
import { addressOf, useChapters, useFound } from "../state/handbook";
import { useMedia } from "../state/useMedia";

interface Props {
  words: string;
  look: (words: string) => void;
  /** The chapter one is in, which stands open. */
  chapter: string;
}

/** What stands where: looked for by words, or chapter by chapter. */
export function Contents({ words, look, chapter }: Props) {
  const chapters = useChapters();
  // Beside the page the chapter one is in stands open; above it, on a phone, it would hide the page.
  const beside = useMedia("(width >= 700px)");
  const found = useFound(words);
  return (
    <nav aria-label="Contents" className="not-on-paper space-y-1 p-4">
      <label>
        <span className="sr-only">Find in the handbook</span>
        <input
          type="search"
          className="field w-full"
          placeholder="find: hexagon, blend, Ø …"
          value={words}
          maxLength={200}
          onChange={(event) => look(event.target.value)}
        />
      </label>
      {words.trim() && (
        <section aria-label="Found">
          <p role="status" className="text-sm text-pencil">
            {found ? `${found.length} page${found.length === 1 ? "" : "s"}` : "looking…"}
          </p>
          <ul>
            {found?.map((leaf) => (
              <Leaf key={`${leaf.chapter} ${leaf.key}`} leaf={leaf} told />
            ))}
          </ul>
        </section>
      )}
      {chapters?.map((each) => (
        <details key={each.key} open={(beside && each.key === chapter) || undefined}>
          <summary className="cursor-pointer font-semibold">{each.title}</summary>
          <ul className="pb-2">
            {each.pages.map((leaf, i) => (
              <Fragment key={leaf.key}>
                {leaf.group && leaf.group !== each.pages[i - 1]?.group && (
                  <li className="pt-1 pl-3 text-sm text-pencil">{leaf.group}</li>
                )}
                <Leaf leaf={leaf} />
              </Fragment>
            ))}
          </ul>
        </details>
      ))}
    </nav>
  );
}

function Leaf({ leaf, told = false }: { leaf: LeafOut; told?: boolean }) {
  return (
    <li>
      <NavLink
        to={addressOf(leaf.chapter, leaf.key)}
        className={({ isActive }) =>
          `block min-h-7 px-3 py-0.5 hover:bg-wash ${isActive ? "bg-wash font-semibold" : ""}`
        }
      >
        {leaf.title}
        {told && <span className="block text-sm text-pencil">{leaf.summary}</span>}
      </NavLink>
    </li>
  );
}
