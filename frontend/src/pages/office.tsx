import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import {
  addPerson,
  changePerson,
  giveRole,
  type HereOut,
  inWords,
  officeDevices,
  type PersonOut,
  type WeekOfAllOut,
  sendDeviceAway,
  setSecret,
  takePersonOut,
  weekOfAll,
} from "../api/client";
import { useHere } from "../state/office";
import { Button } from "../ui/Button";
import { Field } from "../ui/Field";
import { Heads } from "../ui/Heads";
import { PersonSign, SIGNS } from "../ui/PersonSign";
import { Bar } from "../views/Bar";

type Role = PersonOut["role"];
type Roles = HereOut["roles"];

/** The office: who works here, in which role, at which browsers. */
export function Component() {
  const here = useHere();
  useEffect(() => {
    document.title = "The office · Entrick";
  }, []);
  const me = here?.people.find((person) => person.id === here.you);
  return (
    <div className="flex h-full flex-col">
      <Bar title="The office" />
      <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div className="mx-auto max-w-5xl space-y-6 bg-page px-8 py-6 max-[700px]:px-3">
          {here && me && (
            <>
              {here.alone ? (
                <p className="max-w-2xl">
                  You use this desk alone, and are asked nothing. Where several people share it, each has a
                  logbook, a practice record and kits of their own, and sheets say who drew, checked and
                  approved them.
                </p>
              ) : null}
              <section aria-labelledby="you">
                <h2 id="you" className="text-lg font-semibold">
                  {here.alone && !me.name ? "What you are called" : "You"}
                </h2>
                <Called key={me.id} person={me} />
                {!here.alone && <Own person={me} />}
              </section>
              {here.may.includes("run the office") && (here.alone ? me.name !== "" : true) && (
                <>
                  <People people={here.people} you={here.you} roles={here.roles} />
                  <NewPerson roles={here.roles} />
                  {!here.alone && <Devices />}
                </>
              )}
            </>
          )}
        </div>
      </main>
    </div>
  );
}

/** What is changed in an office shows everywhere. */
function useChange<T>(change: (said: T) => Promise<unknown>, after?: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: async () => {
      await queries.invalidateQueries();
      after?.();
    },
  });
}

interface NameAndInitialsProps {
  labels: readonly [string, string];
  values: readonly [string, string];
  put: readonly [(name: string) => void, (initials: string) => void];
}

/** By what somebody is called. */
function NameAndInitials({ labels, values, put }: NameAndInitialsProps) {
  return (
    <>
      <Field label={labels[0]}>
        <input
          className="field w-64"
          required
          maxLength={80}
          value={values[0]}
          onChange={(event) => put[0](event.target.value)}
        />
      </Field>
      <Field label={labels[1]}>
        <input
          className="field w-24"
          required
          maxLength={6}
          value={values[1]}
          onChange={(event) => put[1](event.target.value.trim())}
        />
      </Field>
    </>
  );
}

function Called({ person }: { person: PersonOut }) {
  const [name, setName] = useState(person.name);
  const [initials, setInitials] = useState(person.initials);
  const [sign, setSign] = useState(person.sign);
  const put = useChange(() =>
    changePerson({ path: { person_id: person.id }, body: { name, initials, sign: sign as "circle" } }),
  );
  const same = name === person.name && initials === person.initials && sign === person.sign;
  return (
    <form
      className="flex flex-wrap items-end gap-3 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        put.mutate(undefined);
      }}
    >
      <NameAndInitials
        labels={["Name", "Initials, as in the title block"]}
        values={[name, initials]}
        put={[setName, setInitials]}
      />
      <Field label="Mark">
        <span className="flex items-center gap-2">
          <select className="field" value={sign} onChange={(e) => setSign(e.target.value)}>
            {SIGNS.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
          <PersonSign sign={sign} />
        </span>
      </Field>
      <Button main type="submit" disabled={same || put.isPending || !name.trim() || !initials}>
        Keep
      </Button>
      {put.error && (
        <p role="alert" className="w-full">
          {inWords(put.error)}
        </p>
      )}
    </form>
  );
}

function Own({ person }: { person: PersonOut }) {
  return (
    <div className="flex flex-wrap items-end gap-4 pt-3">
      <Pin person={person} />
      <a className="act" href={`/api/people/${person.id}/export.zip`} download>
        ↓ What is yours, as open files
      </a>
    </div>
  );
}

/** Setting a PIN or passphrase. */
function Pin({ person, done }: { person: PersonOut; done?: () => void }) {
  const [secret, setSaid] = useState("");
  const put = useChange(
    () => setSecret({ path: { person_id: person.id }, body: { secret } }),
    () => {
      setSaid("");
      done?.();
    },
  );
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        put.mutate(undefined);
      }}
    >
      <Field label={person.secret ? "Another PIN or passphrase" : "PIN of six figures, or a passphrase"}>
        <input
          className="field w-64"
          type="password"
          autoComplete="new-password"
          maxLength={200}
          value={secret}
          onChange={(event) => setSaid(event.target.value)}
        />
      </Field>
      <Button type="submit" disabled={secret === "" || put.isPending}>
        Set it
      </Button>
      <span role="status">{put.isSuccess && secret === "" ? "It is set." : ""}</span>
      {put.error && (
        <p role="alert" className="w-full">
          {inWords(put.error)}
        </p>
      )}
    </form>
  );
}

type Week = WeekOfAllOut["people"][number];

/** What somebody did in a week, in a few words. */
function inWeek(week: Week | undefined): string | undefined {
  if (!week) return undefined;
  const told = [
    week.sittings > 0 && `${week.sittings} at the board`,
    week.answers > 0 && `${week.answers} answers, ${Math.round(week.share * 100)} % right`,
    week.saved > 0 && `${week.saved} saved`,
    week.unchecked > 0 && `${week.unchecked} to be checked`,
  ].filter(Boolean);
  return told.join(" · ") || "nothing yet";
}

interface PeopleProps {
  people: readonly PersonOut[];
  you: number;
  roles: Roles;
}

function People({ people, you, roles }: PeopleProps) {
  const role = useChange(({ person, to }: { person: PersonOut; to: Role }) =>
    giveRole({ path: { person_id: person.id }, body: { role: to } }),
  );
  const { data: week } = useQuery({ queryKey: ["week"], queryFn: () => weekOfAll() });
  return (
    <section aria-labelledby="people">
      <h2 id="people" className="text-lg font-semibold">
        People
      </h2>
      {role.error && <p role="alert">{inWords(role.error)}</p>}
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <Heads
            of={["", "Initials", "Name, and the last seven days", "Role", "PIN", ""]}
            unseen={{ 0: "Mark", 5: "What can be done" }}
          />
          <tbody>
            {people.map((person) => (
              <Row
                key={person.id}
                person={person}
                roles={roles}
                you={person.id === you}
                week={inWeek(week?.people.find((each) => each.person === person.id))}
                give={(to) => role.mutate({ person, to })}
              />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

interface RowProps {
  person: PersonOut;
  you: boolean;
  week: string | undefined;
  roles: Roles;
  give: (role: Role) => void;
}

function Row({ person, you, week, roles, give }: RowProps) {
  const [open, setOpen] = useState<"" | "pin" | "out">("");
  const out = useChange(() => takePersonOut({ path: { person_id: person.id } }));
  return (
    <>
      <tr className="border-b border-ruling">
        <td className="py-1.5 pr-3">
          <PersonSign sign={person.sign} />
        </td>
        <td className="pr-3 font-lettering">{person.initials}</td>
        <td className="pr-3">
          <span className="block font-semibold">{person.name}</span>
          <Link
            className="underline"
            to={`/logbook?person=${person.id}`}
            aria-label={`Logbook and practice of ${person.name}: ${week ?? ""}`}
          >
            {week ?? "logbook and practice"}
          </Link>
        </td>
        <td className="pr-3">
          <select
            className="field"
            aria-label={`Role of ${person.name}`}
            value={person.role}
            onChange={(event) => give(event.target.value as Role)}
          >
            {roles.map(({ key, told }) => (
              <option key={key} value={key}>
                {told}
              </option>
            ))}
          </select>
        </td>
        <td className="pr-3">{person.secret ? "set" : "none"}</td>
        <td className="space-x-1 whitespace-nowrap">
          {!you && (
            <>
              <Button
                onClick={() => setOpen(open === "pin" ? "" : "pin")}
                aria-label={`PIN of ${person.name}`}
              >
                PIN…
              </Button>
              <Button
                onClick={() => setOpen(open === "out" ? "" : "out")}
                aria-label={`Take ${person.name} out`}
              >
                Take out…
              </Button>
            </>
          )}
        </td>
      </tr>
      {open !== "" && (
        <tr className="border-b border-ruling">
          <td colSpan={6} className="py-2">
            {open === "pin" ? (
              <Pin person={person} done={() => setOpen("")} />
            ) : (
              <div className="flex flex-wrap items-center gap-3">
                <span className="max-w-xl">
                  Jobs stay, signed {person.initials}. Logbook, practice, kits and sets of {person.name} are
                  taken away from this register: take them along first.
                </span>
                <a className="act" href={`/api/people/${person.id}/export.zip`} download>
                  ↓ Take along
                </a>
                <Button onClick={() => out.mutate(undefined)} disabled={out.isPending}>
                  Take {person.name} out
                </Button>
                {out.error && <span role="alert">{inWords(out.error)}</span>}
              </div>
            )}
          </td>
        </tr>
      )}
    </>
  );
}

function NewPerson({ roles }: { roles: Roles }) {
  const [name, setName] = useState("");
  const [initials, setInitials] = useState("");
  const [role, setRole] = useState<Role>("draws");
  const add = useChange(
    () => addPerson({ body: { name: name.trim(), initials, role } }),
    () => {
      setName("");
      setInitials("");
    },
  );
  return (
    <section aria-labelledby="new-person">
      <h2 id="new-person" className="text-lg font-semibold">
        Somebody more
      </h2>
      <form
        className="flex flex-wrap items-end gap-3 pt-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate(undefined);
        }}
      >
        <NameAndInitials
          labels={["Name of whoever comes", "Their initials"]}
          values={[name, initials]}
          put={[setName, setInitials]}
        />
        <Field label="Their role">
          <select className="field" value={role} onChange={(event) => setRole(event.target.value as Role)}>
            {roles.map(({ key, told, about }) => (
              <option key={key} value={key}>
                {told}: {about}
              </option>
            ))}
          </select>
        </Field>
        <Button main type="submit" disabled={!name.trim() || !initials || add.isPending}>
          Let them work here
        </Button>
        {add.error && (
          <p role="alert" className="w-full">
            {inWords(add.error)}
          </p>
        )}
      </form>
    </section>
  );
}

const time = (at: string) =>
  new Date(at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

function Devices() {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: ["devices"], queryFn: () => officeDevices() });
  const away = useMutation({
    mutationFn: (key: string) => sendDeviceAway({ path: { key } }),
    onSuccess: (now) => queries.setQueryData(["devices"], now),
  });
  if (!data || data.devices.length === 0) return null;
  return (
    <section aria-labelledby="browsers">
      <h2 id="browsers" className="text-lg font-semibold">
        Browsers that were let in
      </h2>
      <ul>
        {data.devices.map((device) => (
          <li key={device.key} className="flex flex-wrap items-center gap-3 border-b border-ruling py-1">
            <span className="min-w-0 flex-1">
              {device.person || "Nobody"} at {device.name}, {device.address}, last here {time(device.seen_at)}
            </span>
            <Button
              onClick={() => away.mutate(device.key)}
              aria-label={`Send ${device.name} of ${device.person || "nobody"} away`}
            >
              Send away
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
