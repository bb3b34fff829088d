import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { cutters, type MachineEntryOut } from "../api/client";
import { keep } from "../api/files";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { FileButton } from "../ui/FileButton";

/** What is set on a machine, by the entries of its profile. */
export type Profile = Readonly<Record<string, string | number | boolean>>;

/** The machine that was set last is there again at the next visit. */
const KEPT = "entrick.machine";

export function keptMachine(): Profile | null {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "null") as Profile | null;
  } catch {
    return null;
  }
}

export function keepMachine(profile: Profile) {
  localStorage.setItem(KEPT, JSON.stringify(profile));
}

interface Props {
  profile: Profile | null;
  /** With its feed in each unit where it is one that comes with the desk. */
  put: (profile: Profile, feeds?: Readonly<Record<string, number>>) => void;
}

/** The machine, and what is set on it: one of those that come with the desk, changed as one likes, or one out of a
 * file. */
export function Machine({ profile, put }: Props) {
  const all = useQuery({ queryKey: ["machines"], queryFn: () => cutters(), staleTime: Infinity });
  const [told, setTold] = useState("");
  if (!all.data) return null;
  const shipped = all.data.machines.map((each) => ({
    key: each.key,
    feeds: each.feeds,
    profile: JSON.parse(each.profile) as Profile,
  }));
  const now = profile ?? shipped[0]!.profile;
  const open = async (file: File) => {
    setTold("");
    try {
      const read: unknown = JSON.parse(await file.text());
      if (typeof read === "object" && read !== null && !Array.isArray(read)) put(read as Profile);
      else setTold(`${file.name} is no profile of a machine: it has no entries.`);
    } catch {
      setTold(`${file.name} is no profile of a machine: it is not JSON.`);
    }
  };
  return (
    <fieldset className="space-y-1">
      <label className="flex items-baseline gap-2">
        <span className="w-36">Machine</span>
        <select
          aria-label="Machine"
          className="field min-w-0 flex-1"
          value={shipped.find((each) => each.profile.name === now.name)?.key ?? ""}
          onChange={(event) => {
            const chosen = shipped.find((each) => each.key === event.target.value);
            if (chosen) put(chosen.profile, chosen.feeds);
          }}
        >
          {shipped.every((each) => each.profile.name !== now.name) && (
            <option value="">{String(now.name ?? "one of your own")}</option>
          )}
          {shipped.map((each) => (
            <option key={each.key} value={each.key}>
              {String(each.profile.name)}
            </option>
          ))}
        </select>
      </label>
      <details>
        <summary className="cursor-pointer">what is set on it</summary>
        <div className="space-y-1 pt-1">
          {all.data.entries
            .filter((entry) => entry.key in now && entry.key !== "feed")
            .map((entry) => (
              <Entry
                key={entry.key}
                entry={entry}
                value={now[entry.key]!}
                put={(value) => put({ ...now, [entry.key]: value })}
              />
            ))}
          <p className="flex gap-2 pt-1">
            <Button
              onClick={() =>
                keep(new Blob([JSON.stringify(now, null, 2)], { type: "application/json" }), "machine.json")
              }
            >
              Keep this machine
            </Button>
            <FileButton label="Choose a machine" accept=".json" take={(file) => void open(file)}>
              Open a machine…
            </FileButton>
          </p>
          {told && <p role="alert">{told}</p>}
        </div>
      </details>
    </fieldset>
  );
}

interface EntryProps {
  entry: MachineEntryOut;
  value: string | number | boolean;
  put: (value: string | number | boolean) => void;
}

function Entry({ entry, value, put }: EntryProps) {
  if (typeof value === "boolean") return <Check label={entry.label} on={value} put={put} />;
  return (
    <label className="flex items-baseline gap-2">
      <span className="w-36 shrink-0">{entry.label}</span>
      {entry.words.length > 0 ? (
        <select
          aria-label={entry.label}
          className="field"
          value={String(value)}
          onChange={(event) => put(event.target.value)}
        >
          {entry.words.map((word) => (
            <option key={word}>{word}</option>
          ))}
        </select>
      ) : (
        <input
          aria-label={entry.label}
          className={typeof value === "number" ? "field w-24" : "field min-w-0 flex-1"}
          autoComplete="off"
          inputMode={typeof value === "number" ? "decimal" : undefined}
          defaultValue={String(value)}
          key={String(value)}
          onBlur={(event) => {
            const typed = event.target.value.trim();
            const number = Number(typed.replace(",", "."));
            put(typeof value === "number" && typed !== "" && !Number.isNaN(number) ? number : typed);
          }}
        />
      )}
      {entry.unit}
    </label>
  );
}
