const said = (name: string) => document.querySelector<HTMLMetaElement>(`meta[name="${name}"]`)?.content ?? "";

/** The first person: whose everything is at a desk used alone. */
const FIRST = "1";

/** Who works at this browser, by number; nought for nobody. */
export const whoWorks = () => Number(said("who")) || 0;

/** The key under which something of a job is kept in this browser: what it keeps of one register, or of one person, is
 * no business of another's. */
export function keptAs(what: string, job: number | undefined) {
  const who = said("who");
  return `entrick.${what}.${said("register")}.${job ?? 0}${who === FIRST ? "" : `.${who}`}`;
}
