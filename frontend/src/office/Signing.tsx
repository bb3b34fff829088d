import { useMutation, useQueryClient } from "@tanstack/react-query";
import { handOver, inWords, signRevision } from "../api/client";
import { useOffice } from "../state/office";
import { useSavedJob } from "../state/server";
import { Button } from "../ui/Button";

/** The press that signs the newest revision, where there is something to sign. */
export function Signing({ job: id, unsaved }: { job: number; unsaved: boolean }) {
  const { data: job } = useSavedJob(id);
  const queries = useQueryClient();
  const sign = useMutation({
    mutationFn: (signed_as: "checked" | "approved") =>
      signRevision({ path: { job_id: id, number: job!.newest.number }, body: { signed_as } }),
    onSuccess: () =>
      queries.invalidateQueries({ predicate: ({ queryKey }) => SHOWN.has(String(queryKey[0])) }),
  });
  const what = job?.to_sign;
  return (
    <>
      {sign.error && <span role="alert">{inWords(sign.error)}</span>}
      {what && (
        <Button main disabled={unsaved || sign.isPending} onClick={() => sign.mutate(what)}>
          Sign as {what}
        </Button>
      )}
    </>
  );
}

const SHOWN = new Set(["job", "jobs", "revisions"]);

/** Whose a job is, and handing it over. */
export function Whose({ job: id }: { job: number }) {
  const here = useOffice();
  const { data: job } = useSavedJob(id);
  const queries = useQueryClient();
  const give = useMutation({
    mutationFn: (person: number) => handOver({ path: { job_id: id }, body: { person } }),
    onSuccess: () =>
      queries.invalidateQueries({ predicate: ({ queryKey }) => SHOWN.has(String(queryKey[0])) }),
  });
  if (!here || !job) return null;
  return (
    <p className="flex flex-wrap items-baseline gap-2 pb-2">
      <label className="flex items-baseline gap-2">
        This job is
        <select
          className="field"
          value={job.owner}
          disabled={!job.to_hand_over || give.isPending}
          onChange={(event) => give.mutate(Number(event.target.value))}
        >
          <option value={0}>everybody’s</option>
          {here.people.map((person) => (
            <option key={person.id} value={person.id}>
              {person.name}’s
            </option>
          ))}
        </select>
      </label>
      {!job.job.yours && <span>You may look at it and copy it; saving is for {job.job.whose}.</span>}
      {give.error && <span role="alert">{inWords(give.error)}</span>}
    </p>
  );
}
