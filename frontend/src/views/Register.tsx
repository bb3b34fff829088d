import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type JobIn, type JobOut } from "../api/client";
import { Header } from "./Header";

/** The drawing office's list of jobs. */
export function Register() {
  const [archived, setArchived] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const go = useNavigate();
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ["jobs", archived], queryFn: () => api.jobs(archived) });
  const [trouble, setTrouble] = useState("");
  const enter = useMutation({
    mutationFn: (job: JobIn) => api.addJob(job),
    onSuccess: (job) => go(`/jobs/${job.id}`),
    onError: (problem) => setTrouble(problem.message),
  });
  const put = useMutation({
    mutationFn: (job: JobOut) => api.archive(job.id, !job.archived),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["jobs"] }),
    onError: (problem) => setTrouble(problem.message),
  });
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    const bytes = await chosen.arrayBuffer();
    try {
      enter.mutate({
        text: new TextDecoder("utf-8", { fatal: true }).decode(bytes),
        note: `opened from ${chosen.name}`.slice(0, 200),
      });
    } catch {
      setTrouble(`${chosen.name} is not a plan: a plan is UTF-8 text`);
    }
  };

  return (
    <div className="flex h-full flex-col">
      <Header>
        <h1>Register of the drawing office</h1>
        <span className="flex-1" />
        <button className="act" onClick={() => enter.mutate({})}>
          New job
        </button>
        <button className="act" onClick={() => file.current?.click()}>
          Open a plan…
        </button>
        <input
          ref={file}
          type="file"
          className="hidden"
          accept=".entrick,text/plain"
          aria-label="Open a plan from disk"
          onChange={(event) => {
            void open(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-6">
        <div className="mx-auto max-w-5xl bg-page px-8 py-6">
          {(trouble || error) && (
            <p role="alert" className="mb-3 border-l-4 border-accent bg-wash px-3 py-1">
              {trouble || error?.message}
            </p>
          )}
          <table className="w-full border-collapse text-left">
            <caption className="pb-2 text-left font-lettering text-2xl">
              {archived ? "Archived jobs" : "Jobs at work"}
            </caption>
            <thead>
              <tr className="border-y border-ink text-sm">
                <th className="w-24 py-1 font-semibold">Number</th>
                <th className="w-36 font-semibold">Part</th>
                <th className="font-semibold">Title</th>
                <th className="w-16 font-semibold">Units</th>
                <th className="w-16 font-semibold">Scale</th>
                <th className="w-20 font-semibold">Revision</th>
                <th className="w-40 font-semibold">Last worked</th>
                <th className="w-44">
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {data?.jobs.map((job) => (
                <tr key={job.id} className="border-b border-ruling">
                  <td className="font-lettering">{job.drawing || "none yet"}</td>
                  <td>
                    <Link to={`/jobs/${job.id}`} tabIndex={-1} aria-hidden="true">
                      <img
                        src={`/api/jobs/${job.id}/thumbnail.svg?r=${job.revision}`}
                        alt=""
                        className="my-2 h-16 w-32 object-contain object-left"
                      />
                    </Link>
                  </td>
                  <td>
                    <Link to={`/jobs/${job.id}`} className="text-lg font-semibold underline decoration-1">
                      {job.title}
                    </Link>
                    <span className="block text-sm text-pencil">
                      {job.mistakes > 0
                        ? `${job.mistakes} to put right`
                        : job.outlines > 0
                          ? `${job.outlines} outline${job.outlines > 1 ? "s" : ""}`
                          : "not lined in yet"}
                    </span>
                  </td>
                  <td>{job.unit}</td>
                  <td>{job.scale}</td>
                  <td>{job.revision}</td>
                  <td className="text-sm">{new Date(job.worked_at).toLocaleString()}</td>
                  <td className="space-x-1 text-right whitespace-nowrap">
                    <button
                      className="act"
                      onClick={() => enter.mutate({ copy_of: job.id })}
                      aria-label={`Copy ${job.title}`}
                    >
                      Copy
                    </button>
                    <button
                      className="act"
                      onClick={() => put.mutate(job)}
                      aria-label={`${job.archived ? "Take back" : "Archive"} ${job.title}`}
                    >
                      {job.archived ? "Take back" : "Archive"}
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {data?.jobs.length === 0 && !archived && (
            <p className="py-6">
              The register is empty. Start a <em>new job</em>, or <em>open a plan</em> from disk; started with{" "}
              <code>--demo</code>, an empty register gets the sample jobs of the lock yard.
            </p>
          )}
          {data?.jobs.length === 0 && archived && <p className="py-6">Nothing is archived.</p>}
          <p className="pt-4">
            <button className="act" onClick={() => setArchived(!archived)}>
              {archived ? "Back to the jobs at work" : "Show archived jobs"}
            </button>
          </p>
        </div>
      </main>
    </div>
  );
}
