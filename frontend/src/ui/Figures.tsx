import { Fragment } from "react";

/** Text with its fractions set as fractions. */
export function Figures({ text }: { text: string }) {
  const parts = text.split(/(\d+\/\d+)/);
  return (
    <>
      {parts.map((part, i) =>
        i % 2 ? (
          <span key={i} className="frac">
            {part}
          </span>
        ) : (
          <Fragment key={i}>{part}</Fragment>
        ),
      )}
    </>
  );
}
