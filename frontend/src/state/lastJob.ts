/** The job that was worked on last: the bar leads back to it from any page. */
import { create } from "zustand";
import { keptAs } from "./register";

export interface LastJob {
  id: number;
  drawing: string;
  title: string;
}

const key = () => keptAs("last job", undefined);

function read(): LastJob | null {
  try {
    return JSON.parse(localStorage.getItem(key()) ?? "null") as LastJob | null;
  } catch {
    return null;
  }
}

export const useLastJob = create<{ job: LastJob | null }>(() => ({ job: read() }));

/** Note which job is worked on. */
export function workedOn(job: LastJob): void {
  const before = useLastJob.getState().job;
  if (before && before.id === job.id && before.drawing === job.drawing && before.title === job.title) return;
  localStorage.setItem(key(), JSON.stringify(job));
  useLastJob.setState({ job });
}
