/** Which register the desk serves: what a browser keeps of one is no business of another's. */
const register = () => document.querySelector<HTMLMetaElement>('meta[name="register"]')?.content ?? "";

/** The key under which something of a job is kept in this browser. */
export const keptAs = (what: string, job: number | undefined) => `entrick.${what}.${register()}.${job ?? 0}`;
