/** What is asked of the desk about the job on the bench, besides edits. */
import {
  isOvertaken,
  openStep,
  Problem,
  regions as regionsAt,
  suggest as suggestDimensions,
} from "../api/client";
import { atTheBench, takeOver, tell, tellProblem, useDocument } from "./document";
import { look, useLooks } from "./looks";

/** Ask for dimensions that define the outline, and put them on, unless it is stopped before. */
export function suggest(signal: AbortSignal): Promise<void> {
  return atTheBench(async (text) => {
    const found = await suggestDimensions({ body: { text }, signal }).catch((problem: unknown) => {
      if (!isOvertaken(problem)) throw problem;
    });
    if (!found) return tell("Stopped: no dimension was put on.");
    const count = found.statements.length;
    if (count > 0) await takeOver(found.text);
    const open = found.left_open.length > 0 ? ` Still open: ${found.left_open.join(", ")}.` : "";
    tell(
      count > 0
        ? `${count} dimension${count > 1 ? "s" : ""} put on; edit or strike out any of them.${open}`
        : `Nothing to add: the dimensions define the outline.${open}`,
    );
  });
}

/** Point at one more region. */
export async function pointAt(spot: readonly [number, number]): Promise<void> {
  const { regions } = useLooks.getState();
  const { text } = useDocument.getState();
  if (!regions) return;
  const spots = [...regions.spots, spot];
  try {
    const places = spots.map(([x, y]): [number, number] => [x, y]);
    const found = await regionsAt({ body: { text, spots: places, kind: regions.kind } });
    look({ regions: { ...regions, spots, found, told: "" } });
  } catch (problem) {
    const told = problem instanceof Problem ? problem.detail : String(problem);
    look({ regions: { ...regions, told } });
  }
}

/** Write the boundary of the regions down as statements. */
export function lineIn(): Promise<void> {
  return atTheBench(async (text) => {
    const { regions } = useLooks.getState();
    if (!regions?.found) return;
    await takeOver(text, { op: "append", text: regions.found.statements.join("\n") });
    look({ regions: null });
  });
}

/** Open a step up, or close it again. */
export async function openUp(step: number): Promise<void> {
  const { text, work, kitText } = useDocument.getState();
  if (useLooks.getState().opened?.step === step) {
    look({ opened: null });
    return;
  }
  try {
    const schedule = work?.schedule ?? "written";
    const found = await openStep({ body: { text, step, schedule, kit: kitText } });
    look({ opened: { step, text, found, upTo: found.steps.length } });
  } catch (problem) {
    tellProblem(problem);
  }
}
