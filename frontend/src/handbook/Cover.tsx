import { Link } from "react-router";
import { addressOf, figureOf, useChapters } from "../state/handbook";

/** The first page: every chapter by sight. */
export function Cover() {
  const chapters = useChapters();
  return (
    <div className="space-y-6">
      <p className="max-w-[70ch]">
        Every kind of construction, rule, motion, slip and instrument the desk knows, made from what they
        declare of themselves; figures are drawn by the desk. A page is linked from every card, message and
        finding.
      </p>
      {chapters?.map((chapter) => (
        <section key={chapter.key} aria-labelledby={`chapter-${chapter.key}`}>
          <h2 id={`chapter-${chapter.key}`} className="pb-1 text-lg font-semibold">
            {chapter.title}
          </h2>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(9.5rem,100%),1fr))] gap-2">
            {chapter.pages.map((leaf) => (
              <li key={leaf.key}>
                <Link
                  to={addressOf(chapter.key, leaf.key)}
                  title={leaf.summary}
                  className={`block h-full border border-rim p-2 hover:border-ink ${leaf.figured ? "on-paper" : ""}`}
                >
                  {leaf.figured && (
                    <img
                      src={figureOf(leaf, true)}
                      alt=""
                      loading="lazy"
                      className="h-20 w-full object-contain"
                    />
                  )}
                  <span className="font-semibold">{leaf.title}</span>
                  {!leaf.figured && leaf.summary && (
                    <span className="block text-sm text-pencil">{leaf.summary}</span>
                  )}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
