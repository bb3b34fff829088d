import { useEffect } from "react";
import { Handbook } from "../handbook/Handbook";

/** The handbook, closed: its contents. */
export function Component() {
  useEffect(() => {
    document.title = "Handbook · Entrick";
  }, []);
  return <Handbook />;
}
