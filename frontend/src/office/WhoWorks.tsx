import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { type HereOut, inWords, type PersonOut } from "../api/client";
import { leave, useHere, useOffice, workAs } from "../state/office";
import { Button } from "../ui/Button";
import { PersonSign } from "../ui/PersonSign";

/** Before anything else, where there are several people: who works here? */
export function AskedFirst({ children }: { children: ReactNode }) {
  const here = useHere();
  if (!here || here.you !== 0) return children;
  return (
    <main
      id="page"
      tabIndex={-1}
      className="flex h-full items-start justify-center overflow-auto p-8 tight:p-3"
    >
      <section aria-labelledby="who" className="w-full max-w-xl bg-page p-6">
        <h1 className="font-lettering text-2xl">Entrick</h1>
        <h2 id="who" className="pt-2 pb-3 text-lg font-semibold">
          Who works here?
        </h2>
        {here.people.length > 0 ? <Choice here={here} /> : <Called />}
      </section>
    </main>
  );
}

/** People up to whom the others stand in the bar themselves: one press changes over. */
const IN_THE_BAR = 4;

/** Who works here, at the end of the bar; a press on another changes over, or shows everybody where there are many. */
export function WhoWorks() {
  const here = useOffice();
  const me = here?.people.find((person) => person.id === here.you);
  if (!here || !me) return null;
  const beside =
    here.people.length <= IN_THE_BAR && !here.asks ? here.people.filter((each) => each !== me) : [];
  return (
    <span className="flex items-center gap-1">
      <Everybody here={here} me={me} />
      {beside.map((person) => (
        <Button
          key={person.id}
          className="flex items-center gap-1.5 max-[1000px]:hidden"
          aria-label={`Change over to ${person.name}`}
          title={person.name}
          onClick={() => void workAs({ person: person.id })}
        >
          <PersonSign sign={person.sign} />
          {person.initials}
        </Button>
      ))}
    </span>
  );
}

function Everybody({ here, me }: { here: HereOut; me: PersonOut }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="act act-main flex items-center gap-1.5"
        aria-label={`${me.name} works here; change over`}
      >
        <PersonSign sign={me.sign} />
        {me.initials}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          collisionPadding={4}
          aria-label="Who works here"
          className="slip z-20 max-h-[var(--radix-popover-content-available-height)] w-80 max-w-[96vw] overflow-auto p-3 shadow-md"
        >
          <p className="pb-2">
            <strong>{me.name}</strong> works here.
          </p>
          <Choice here={here} />
          <p className="border-t border-ruling pt-2">
            <Button onClick={() => void leave()}>Nobody</Button>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** People up to whom everybody is seen at once. */
const FEW = 8;

const toBeTyped = (field: HTMLInputElement | null) => field?.focus();

/** Everybody who could work here; who is chosen works here, where a PIN is asked for once it is said. */
function Choice({ here }: { here: HereOut }) {
  const [chosen, setChosen] = useState<PersonOut | null>(null);
  const [wanted, setWanted] = useState("");
  const [told, setTold] = useState("");
  const come = (person: PersonOut, said = "") =>
    void workAs({ person: person.id }, said).catch((problem: unknown) => setTold(inWords(problem)));
  const choose = (person: PersonOut) => {
    setTold("");
    if (here.asks) setChosen(person);
    else come(person);
  };
  const others = here.people.filter((person) => person.id !== here.you);
  const find = wanted.trim().toLowerCase();
  const shown = others.filter((person) => `${person.name} ${person.initials}`.toLowerCase().includes(find));
  if (chosen)
    return (
      <Secret
        label={`PIN or passphrase of ${chosen.name}`}
        come={(secret) => come(chosen, secret)}
        told={told}
        back={() => setChosen(null)}
      />
    );
  return (
    <>
      {others.length > FEW && (
        <label>
          <span className="sr-only">Find a person</span>
          <input
            type="search"
            className="field on-table mb-2 w-full"
            placeholder="find by name or initials"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
          />
        </label>
      )}
      <ul aria-label="People" className="max-h-[50vh] overflow-auto pb-2">
        {shown.map((person) => (
          <li key={person.id}>
            <button
              className="act flex min-h-11! w-full items-center gap-3 text-left"
              onClick={() => choose(person)}
            >
              <PersonSign sign={person.sign} />
              <span className="w-10 font-lettering">{person.initials}</span>
              <span className="min-w-0 flex-1 truncate">{person.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {told && <p role="alert">{told}</p>}
    </>
  );
}

interface SecretProps {
  label: string;
  come: (secret: string) => void;
  told: string;
  /** Back to everybody, where one was chosen among them. */
  back?: () => void;
  /** What is to be said besides, and whether it has been. */
  before?: ReactNode;
  ready?: boolean;
}

/** A PIN or passphrase, and the press that comes in by it. */
function Secret({ label, come, told, back, before, ready = true }: SecretProps) {
  const [secret, setSecret] = useState("");
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        come(secret);
        setSecret("");
      }}
    >
      {before}
      <label className="block">
        {label}
        <input
          className="field on-table mt-1 block w-full"
          type="password"
          autoComplete="current-password"
          ref={before ? undefined : toBeTyped}
          maxLength={200}
          value={secret}
          onChange={(event) => setSecret(event.target.value)}
        />
      </label>
      {told && <p role="alert">{told}</p>}
      <p className="flex gap-2">
        <Button main type="submit" disabled={secret === "" || !ready}>
          Come in
        </Button>
        {back && (
          <Button type="button" onClick={back}>
            Somebody else
          </Button>
        )}
      </p>
    </form>
  );
}

/** Coming in where nobody is told who works here: by name or initials. */
function Called() {
  const [called, setCalled] = useState("");
  const [told, setTold] = useState("");
  return (
    <Secret
      label="PIN or passphrase"
      told={told}
      ready={called.trim() !== ""}
      come={(secret) =>
        void workAs({ called: called.trim() }, secret).catch((problem: unknown) => setTold(inWords(problem)))
      }
      before={
        <label className="block">
          Your name or initials
          <input
            className="field on-table mt-1 block w-full"
            autoComplete="username"
            maxLength={80}
            ref={toBeTyped}
            value={called}
            onChange={(event) => setCalled(event.target.value)}
          />
        </label>
      }
    />
  );
}
