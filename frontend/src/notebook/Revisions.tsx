import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { listRevisions } from "../api/client";
import { Whose } from "../office/Signing";
import { signedBy } from "../state/office";
import { replace, useSome } from "../state/document";
import { Button } from "../ui/Button";

/** Every saved state; an earlier one can be brought back to the bench. */
export function Revisions() {
  const { job, base, text } = useSome("job", "base", "text");
  const { data, error } = useQuery({
    queryKey: ["revisions", job?.id, base],
    queryFn: () => listRevisions({ path: { job_id: job!.id } }),
    enabled: job !== null,
  });
  if (error) return <p role="alert">{error.message}</p>;
  return (
    <section aria-label="Revisions">
      <h2 className="text-lg font-semibold">Revisions</h2>
      <p className="text-pencil">
        Bringing one back puts it on the bench; nothing is lost, and undo returns.
      </p>
      {job && <Whose job={job.id} />}
      <ul>
        {data?.revisions.map((revision) => (
          <li key={revision.number} className="flex items-baseline gap-3">
            <span className="w-8 text-right">{revision.number}</span>
            <span className="min-w-0 flex-1 truncate">
              {[new Date(revision.saved_at).toLocaleString(), revision.name, revision.note]
                .filter(Boolean)
                .join(" · ")}
              {revision.signatures.map((each) => (
                <span key={each.signed_as} className="block truncate">
                  {signedBy(each)}
                </span>
              ))}
            </span>
            {revision.text === text ? (
              <span className="text-pencil">on the bench</span>
            ) : (
              <>
                <Link className="underline" to={`/jobs/${job!.id}/compare?revision=${revision.number}`}>
                  compare
                </Link>
                <Button onClick={() => void replace(revision.text)}>Bring back</Button>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
