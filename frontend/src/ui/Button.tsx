import type { ComponentProps } from "react";

/** Something to press; `main` where it is what one came for. */
export function Button({
  main = false,
  className = "",
  ...rest
}: ComponentProps<"button"> & { main?: boolean }) {
  return (
    <button className={["act", main ? "act-main" : "", className].filter(Boolean).join(" ")} {...rest} />
  );
}
