/** Which register the desk serves: what a browser keeps of one is no business of another's. */
const register = () => document.querySelector<HTMLMetaElement>('meta[name="register"]')?.content ?? "";

const FIRST = 1;
let who = FIRST;

/** Say who works at this browser: what it keeps of one person is no business of another's. */
export const worksHere = (person: number) => {
  who = person || FIRST;
};

/** The key under which something of a job is kept in this browser. */
export const keptAs = (what: string, job: number | undefined) =>
  `entrick.${what}.${register()}.${job ?? 0}${who === FIRST ? "" : `.${who}`}`;
