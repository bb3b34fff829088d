import { useParams } from "react-router";
import { Handbook } from "../handbook/Handbook";

/** The handbook, open at a page. */
export function Component() {
  const { chapter, page } = useParams();
  return <Handbook chapter={chapter} page={page} />;
}
